/**
 * ABC into a Score. Every voice is walked through by itself, line after line, and cut into measures at its bars; staves
 * joined by a brace become one part. The parser is abcjs (parse.ts).
 */
import type { BeamPlace } from '../private/groups';
import { measureLength } from '../../score/metre';
import { letterAt, pitchClassName, STEPS, toMidi, type Pitch } from '../../theory/pitch';
import type {
  ChordSymbol,
  ClefMark,
  Lyric,
  Mark,
  Note,
  Route,
  Slur,
  TempoMark,
  TimeSignature,
  Tuplet,
} from '../../score/score';
import { TICKS_PER_QUARTER, type Ticks } from '../../score/ticks';
import { parseChord, rootNamed } from '../../theory/chordName';
import { fromFifths } from '../../theory/fifths';
import { parseKey, type Key } from '../../theory/key';
import { modeNamed } from '../../theory/modes';
import { InputError } from '../inputError';
import { assembleScore } from '../private/assemble';
import type { ReadMeasure, ReadPart } from '../private/readMeasures';
import type { ReadResult } from '../readResult';
import {
  parseAbc,
  type AbcBar,
  type AbcKey,
  type AbcMeter,
  type AbcNote,
  type AbcPitch,
  type AbcTempo,
} from '../private/abc/parse';
import { inOrder, partsInOrder } from '../private/abc/partOrder';
import { parserWarnings } from '../private/abc/parserWarnings';
import {
  ALTER_OF,
  ARTICULATION_OF,
  DYNAMICS,
  GRACE,
  HAIRPIN_OF,
  ORNAMENT_OF,
  routeOf,
} from '../private/abc/signs';

/** Reads the first tune of a text. Throws InputError when there are no notes in it. */
export function readAbc(text: string): ReadResult {
  const { tune, tunes, prepared } = parseAbc(text);
  const warnings = [...parserWarnings(tune.warnings ?? []), ...prepared.warnings];
  if (tunes > 1) warnings.push(`The file holds ${tunes} tunes; this is the first.`);
  const propagation = /^%%propagate-accidentals\s+(\w+)/m.exec(text)?.[1];
  const written = streamsOf(
    tune.lines,
    propagation === 'octave' || propagation === 'not' ? propagation : 'pitch',
    prepared.unit,
    warnings,
  );
  const streams = played(written, prepared.partOrder, warnings);
  const tempo = quartersPerMinute(tune.metaText.tempo);
  const parts = withRhythm(partsOf(streams, tempo), prepared.rhythm);
  if (parts.every((p) => p.measures.every((m) => m.notes.length === 0)))
    throw new InputError(
      `The ABC text holds no notes.${warnings[0] ? ` ${warnings[0]}` : ' A tune begins with lines such as X:1 and K:C.'}`,
    );
  const { title, composer } = tune.metaText;
  return { score: assembleScore(title?.trim() ?? '', composer?.trim() ?? '', parts), warnings };
}

/** Whether a text in quotation marks is meant as a chord, known or not: one word with figures or signs after a letter. */
const isLikeChord = (text: string): boolean =>
  /^[A-G][#b♯♭]?\S{0,10}$/.test(text.trim()) && /[0-9°øΔ+^~(/]/.test(text.trim().slice(1));

/** What kind of piece a tune says it is (R:) stands above its first note, as tune books print it. */
function withRhythm(parts: ReadPart[], rhythm: string | undefined): ReadPart[] {
  if (!rhythm || !/[a-z]/i.test(rhythm)) return parts;
  const text = rhythm[0]!.toUpperCase() + rhythm.slice(1);
  const words: Mark = { kind: 'words', onset: 0, staff: 1, above: true, text };
  return parts.map((part, p) =>
    p > 0
      ? part
      : {
          ...part,
          measures: part.measures.map((m, i) => (i > 0 ? m : { ...m, marks: [words, ...m.marks] })),
        },
  );
}

/** One voice of one staff. */
interface Stream {
  readonly staff: number;
  readonly voice: number;
  /** The staff that the brace it stands in begins with. */
  readonly group: number;
  readonly name: string;
  readonly measures: ReadMeasure[];
}

/** Voices in the order in which their parts are played. */
function played(
  streams: readonly Stream[],
  order: string | undefined,
  warnings: string[],
): readonly Stream[] {
  if (order === undefined) return streams;
  const named = streams.find((s) => s.measures.some((m) => m.section !== undefined));
  const letters = partsInOrder(order);
  const names = new Map(
    named?.measures.flatMap((m, i) => (m.section === undefined ? [] : [[i, m.section] as const])),
  );
  // A letter that is said with no parts in the tune names the tune.
  if (!letters || names.size === 0) return streams;
  const missing = letters.find((letter) => ![...names.values()].includes(letter));
  if (missing !== undefined) {
    warnings.push(`The order of parts “${order}” names “${missing}”, which isn’t there; played as written.`);
    return streams;
  }
  return streams.map((stream) => ({
    ...stream,
    measures: inOrder(stream.measures, names, letters) ?? stream.measures,
  }));
}

type Propagation = 'pitch' | 'octave' | 'not';

function streamsOf(
  lines: readonly { staff?: AbcStaffLine[] | undefined }[],
  propagation: Propagation,
  unit: number,
  warnings: string[],
): Stream[] {
  const walkers = new Map<string, Walker>();
  for (const line of lines) {
    let group = 0;
    line.staff?.forEach((staff, s) => {
      if (staff.brace !== 'end' && staff.brace !== 'continue') group = s;
      staff.voices.forEach((elements, v) => {
        const name = `${s}/${v}`;
        const walker =
          walkers.get(name) ?? new Walker(s, v, group, staff.title?.[0] ?? '', propagation, unit, warnings);
        walkers.set(name, walker);
        walker.beginLine(staff);
        for (const element of elements) if (element) walker.take(element);
      });
    });
  }
  return [...walkers.values()].map((w) => w.finish());
}

type AbcStaffLine = NonNullable<ReturnType<typeof parseAbc>['tune']['lines'][number]['staff']>[number];
type AbcElement = NonNullable<AbcStaffLine['voices'][number][number]>;

type Open = {
  -readonly [K in 'notes' | 'symbols' | 'marks' | 'tempos' | 'clefs']: ReadMeasure[K][number][];
} & {
  readonly beamed: BeamPlace[];
} & {
  frame: { -readonly [K in keyof ReadMeasure['frame']]: ReadMeasure['frame'][K] };
  section: string | undefined;
  time: TimeSignature;
  key: Key;
};

/** Walks along a voice and gathers its measures. */
class Walker {
  private time: TimeSignature = { beats: 4, beatType: 4 };
  private free = false;
  private key: Key = { fifths: 0, mode: 'major' };
  private inKey = new Map<string, number>();
  private clef = '';
  /** Octaves that the clef sounds above what is written. */
  private octaves = 0;
  private measure: Open;
  private measures: ReadMeasure[] = [];
  private cursor = 0;
  private content = 0;
  private accidentals = new Map<string, number>();
  private tied = new Map<number, number>();
  private tuplet: { ratio: Tuplet; first: boolean } | undefined;
  private dividers: string[] = [];
  private last: { note: Note; list: Note[] } | undefined;

  constructor(
    private readonly staff: number,
    private readonly voice: number,
    private readonly group: number,
    private readonly name: string,
    private readonly propagation: Propagation,
    /** The length of a note without a figure, in quarters. */
    private readonly unit: number,
    private readonly warnings: string[],
  ) {
    this.measure = this.empty();
  }

  beginLine({ key, meter, clef }: AbcStaffLine): void {
    if (meter) this.setMeter(meter);
    if (key) this.setKey(key);
    if (clef?.type) this.setClef(clef.type);
  }

  take(element: AbcElement): void {
    switch (element.el_type) {
      case 'note':
        return this.takeNote(element);
      case 'bar':
        return this.takeBar(element);
      case 'key':
        return this.setKey(element);
      case 'meter':
        return this.setMeter(element);
      case 'clef':
        return this.setClef(element.type ?? '');
      case 'part':
        this.measure.section ??= element.title.trim() || undefined;
        return;
      case 'tempo': {
        const tempo = quartersPerMinute(element);
        if (tempo > 0) this.measure.tempos.push({ onset: this.at(), tempo });
      }
    }
  }

  finish(): Stream {
    if (this.cursor > 0) this.closeMeasure();
    const { staff, voice, group, name, measures } = this;
    return { staff, voice, group, name, measures };
  }

  private at(): Ticks {
    return Math.round(this.cursor);
  }

  private empty(): Open {
    return {
      notes: [],
      symbols: [],
      marks: [],
      tempos: [],
      beamed: [],
      clefs: [],
      frame: {},
      section: undefined,
      time: this.time,
      key: this.key,
    };
  }

  private setMeter(meter: AbcMeter): void {
    const time = timeOf(meter);
    this.free = !time && meter.type !== 'specified';
    if (!time) return;
    this.time = time;
    if (this.cursor === 0) this.measure.time = time;
  }

  private setKey(key: AbcKey): void {
    this.inKey = new Map(
      (key.accidentals ?? []).map(({ acc, note }) => [note.toUpperCase(), ALTER_OF[acc] ?? 0]),
    );
    this.key = keyOf(key, this.inKey);
    if (this.cursor === 0) this.measure.key = this.key;
  }

  private setClef(type: string): void {
    if (type === this.clef) return;
    this.clef = type;
    const clef = clefOf(type);
    this.octaves = clef?.octaves ?? 0;
    if (clef) this.measure.clefs.push({ onset: this.at(), staff: this.staff - this.group + 1, ...clef });
  }

  /** Between the first and the last note of a beam. */
  private inBeam = false;

  private takeNote(element: AbcNote): void {
    if (element.startTriplet) {
      const actual = element.startTriplet;
      const normal = Math.max(1, Math.round(actual * (element.tripletMultiplier ?? 1)));
      this.tuplet = { ratio: { actual, normal }, first: true };
    }
    const whole = 4 * TICKS_PER_QUARTER;
    const { tuplet } = this;
    const length = element.duration * whole * (tuplet ? tuplet.ratio.normal / tuplet.ratio.actual : 1);
    const rest = element.rest?.type;
    if (rest === 'spacer') return;
    this.takeMarks(element);
    if (element.startBeam) this.inBeam = true;
    if (this.inBeam) this.measure.beamed.push({ at: this.at(), begins: element.startBeam === true });
    if (element.endBeam) this.inBeam = false;
    if (rest) this.takeRest(element, length);
    else this.takePitches(element, length);
    if (element.endTriplet) {
      if (this.last && !rest && tuplet)
        this.change({ brackets: [...(this.last.note.brackets ?? []), { type: 'stop', number: 1 }] });
      this.tuplet = undefined;
    } else if (this.tuplet) this.tuplet = { ...this.tuplet, first: false };
  }

  /** Adds to the note that was taken last. */
  private change(more: Partial<Note>): void {
    if (!this.last) return;
    const { list, note } = this.last;
    const changed = { ...note, ...more };
    list[list.indexOf(note)] = changed;
    this.last = { note: changed, list };
  }

  private takeRest(element: AbcNote, length: number): void {
    const measures = element.rest!.text ?? 1;
    const isWhole = element.rest!.type === 'multimeasure' || element.rest!.type === 'whole';
    const full = measureLength(this.time);
    // A voice that others are laid over, or that a rest of several measures fills, stands still for as many measures.
    const count = isWhole
      ? measures
      : this.voice > 0 && element.rest!.type === 'invisible'
        ? Math.round(length / full)
        : 1;
    if (this.cursor === 0 && count > 1) {
      for (let i = 1; i < count; i++) {
        this.content = full;
        this.closeMeasure();
      }
      length = isWhole ? full : length - (count - 1) * full;
    } else if (isWhole) length = full;
    this.cursor += length;
    // What only fills up an overlaid voice says nothing about the length of the measure.
    if (!(this.voice > 0 && element.rest!.type === 'invisible')) this.content = this.cursor;
  }

  private takePitches(element: AbcNote, length: number): void {
    const onset = this.at();
    const end = Math.round(this.cursor + length);
    this.takeGraces(element, onset);
    const fingers = (element.decoration ?? []).filter((d) => /^[1-5]$/.test(d)).map(Number);
    const lyrics = this.lyricsOf(element);
    const shared = sharedMarks(element.decoration ?? []);
    const slurs = slursOf(element);
    const tuplet = this.tuplet;
    const before = this.measure.notes.length;
    (element.pitches ?? []).forEach((pitch, i) => {
      const own = [...(i === 0 ? slurs : []), ...slursOf(pitch)];
      const tie =
        pitch.startTie && pitch.endTie
          ? 'both'
          : pitch.startTie
            ? 'start'
            : pitch.endTie
              ? 'stop'
              : undefined;
      const note: Note = {
        id: '',
        onset,
        duration: end - onset,
        pitch: this.pitchOf(pitch),
        staff: this.staff - this.group + 1,
        voice: this.voice + 1,
        ...(tie ? { tie } : {}),
        ...(tuplet ? { tuplet: tuplet.ratio } : {}),
        ...(tuplet?.first && i === 0 ? { brackets: [{ type: 'start', number: 1 }] } : {}),
        ...(i === 0 ? shared.first : {}),
        ...shared.all,
        ...(own.length ? { slurs: own } : {}),
        ...(fingers[i] ? { finger: fingers[i] } : {}),
        ...(i === 0 && lyrics.length ? { lyrics } : {}),
      };
      this.measure.notes.push(note);
      if (i === 0) this.last = { note, list: this.measure.notes };
    });
    this.takeGracing(element, before);
    this.cursor += length;
    this.content = this.cursor;
  }

  /**
   * The general gracing of a fiddler or a piper (~) as the simplest one: a short note above. It is written out, since its own sign is a
   * turn to a pianist.
   */
  private takeGracing(element: AbcNote, from: number): void {
    const struck = this.measure.notes.slice(from);
    const top = struck.sort((a, b) => toMidi(b.pitch) - toMidi(a.pitch))[0];
    if (!top || element.gracenotes?.length || !element.decoration?.includes('irishroll')) return;
    const { onset, staff, voice } = top;
    const above = letterAt(top.pitch, 1);
    this.measure.notes.splice(from, 0, {
      id: '',
      onset,
      duration: 0,
      pitch: { ...above, alter: this.inKey.get(above.step) ?? 0 },
      staff,
      voice,
      grace: { slash: true, length: this.graceLength(), type: 8, order: 0 },
    });
  }

  /** What a grace note takes that is written with so many units. */
  private graceLength(units = 1): Ticks {
    return Math.round(units * this.unit * GRACE * TICKS_PER_QUARTER);
  }

  private takeGraces(element: AbcNote, onset: Ticks): void {
    element.gracenotes?.forEach((grace, order) => {
      this.measure.notes.push({
        id: '',
        onset,
        duration: 0,
        pitch: this.pitchOf(grace),
        staff: this.staff - this.group + 1,
        voice: this.voice + 1,
        grace: {
          slash: grace.acciaccatura ?? false,
          // The parser counts them in eighths, whatever the unit is.
          length: this.graceLength(8 * (grace.duration ?? 1 / 8)),
          type: (element.gracenotes?.length ?? 1) > 1 ? 16 : 8,
          order,
        },
      });
    });
  }

  /** The sounding pitch under the key, the accidentals of the measure and ties from the one before. */
  private pitchOf(written: AbcPitch): Pitch {
    const position = Math.round(written.pitch);
    const step = STEPS[((position % 7) + 7) % 7]!;
    const octave = 4 + Math.floor(position / 7);
    const place = this.propagation === 'pitch' ? step : `${step}${octave}`;
    const said = written.accidental === undefined ? undefined : ALTER_OF[written.accidental];
    const held = written.endTie ? this.tied.get(position) : undefined;
    const alter = said ?? held ?? this.accidentals.get(place) ?? this.inKey.get(step) ?? 0;
    if (said !== undefined && this.propagation !== 'not') this.accidentals.set(place, said);
    if (written.startTie) this.tied.set(position, alter);
    else this.tied.delete(position);
    return { step, alter, octave: octave + this.octaves };
  }

  private takeMarks(element: AbcNote): void {
    const onset = this.at();
    const staff = this.staff - this.group + 1;
    for (const { name, position } of element.chord ?? []) {
      const isSymbol = position === undefined || position === 'default';
      const chord = isSymbol ? parseChord(name) : undefined;
      const root = chord === undefined && isSymbol && isLikeChord(name) ? rootNamed(name) : undefined;
      if (chord !== undefined) this.measure.symbols.push({ onset, chord });
      else if (root !== undefined) {
        this.warnings.push(
          `Measure ${this.measures.length + 1}: “${name.trim()}” isn’t a chord Key Path knows; its root, ${pitchClassName(fromFifths(root))}, is kept.`,
        );
        this.measure.symbols.push({ onset, chord: { root, kind: 'power' } });
      } else if (name.trim())
        this.measure.marks.push({
          kind: 'words',
          onset,
          staff,
          above: position !== 'below',
          text: name.trim(),
        });
    }
    for (const decoration of element.decoration ?? []) this.takeDecoration(decoration, onset);
  }

  private takeDecoration(decoration: string, onset: Ticks): void {
    const staff = this.staff - this.group + 1;
    const route = routeOf(decoration);
    const hairpin = HAIRPIN_OF[decoration];
    if (route) this.measure.frame.route = { ...this.measure.frame.route, ...route } satisfies Route;
    else if (DYNAMICS.has(decoration))
      this.measure.marks.push({ kind: 'dynamic', onset, staff, value: decoration });
    else if (hairpin) this.measure.marks.push({ kind: 'hairpin', onset, staff, type: hairpin, number: 1 });
  }

  private lyricsOf({ lyric }: AbcNote): Lyric[] {
    return (lyric ?? []).flatMap(({ syllable, divider }, verse): Lyric[] => {
      const before = this.dividers[verse];
      const text = syllable.trim();
      if (!text) return [];
      this.dividers[verse] = divider;
      const [joined, joins] = [before === '-', divider === '-'];
      return [
        {
          line: 'words',
          verse: verse + 1,
          text,
          syllabic: joined && joins ? 'middle' : joined ? 'end' : joins ? 'begin' : 'single',
          ...(divider === '_' ? { extend: true } : {}),
        },
      ];
    });
  }

  private takeBar(bar: AbcBar): void {
    const { type } = bar;
    const ends = type === 'bar_right_repeat' || type === 'bar_dbl_repeat';
    const begins = type === 'bar_left_repeat' || type === 'bar_dbl_repeat';
    const { frame } = this.measure;
    // A bar at the very beginning, or a second one in a row, closes no measure of its own.
    const isEmpty = this.cursor === 0 && this.content === 0;
    const target = isEmpty ? this.measures.at(-1) : undefined;
    const closing = target ? { ...target.frame } : frame;
    for (const decoration of bar.decoration ?? []) {
      const route = routeOf(decoration);
      if (route) closing.route = { ...closing.route, ...route };
      else this.takeDecoration(decoration, this.at());
    }
    if (ends && (target || !isEmpty)) closing.repeatEnd = true;
    if (type === 'bar_thin_thin' && (target || !isEmpty)) closing.barline = 'double';
    if (type === 'bar_thin_thick' && (target || !isEmpty)) closing.barline = 'final';
    if (bar.endEnding && (target || !isEmpty)) closing.endingEnd = true;
    if (target) this.measures[this.measures.length - 1] = { ...target, frame: closing };
    if (!isEmpty) this.closeMeasure();
    if (begins && !this.repeatsFromPickup()) this.measure.frame.repeatStart = true;
    if (bar.startEnding) this.measure.frame.ending = bar.startEnding;
  }

  /** Whether the measure before is a pickup from which the repetition has begun: a second sign then says nothing new. */
  private repeatsFromPickup(): boolean {
    const before = this.measures.at(-1);
    return (
      before?.frame.repeatStart === true &&
      !before.frame.repeatEnd &&
      before.content < measureLength(before.time) / 2
    );
  }

  private closeMeasure(): void {
    const content = Math.round(this.content);
    const { time, key, frame, section, notes, ...lists } = this.measure;
    this.measures.push({
      ...lists,
      number: '',
      // A bar ends a measure wherever it stands: what is short is meant to be.
      implicit: (content > 0 && content < measureLength(time)) || this.free,
      content,
      time: this.free ? (wholeTime(content) ?? time) : time,
      key,
      changes: [],
      notes,
      pedals: [],
      frame,
      ...(section ? { section } : {}),
    });
    this.cursor = 0;
    this.content = 0;
    this.accidentals = new Map();
    this.measure = this.empty();
  }
}

/** A metre for a measure without one: as many quarters, or eighths, as it holds. */
function wholeTime(content: Ticks): TimeSignature | undefined {
  for (const beatType of [4, 8, 16]) {
    const beats = content / ((4 * TICKS_PER_QUARTER) / beatType);
    if (Number.isInteger(beats) && beats >= 1 && beats <= 64) return { beats, beatType };
  }
  return undefined;
}

function timeOf({ type, value }: AbcMeter): TimeSignature | undefined {
  if (type === 'common_time') return { beats: 4, beatType: 4, symbol: 'common' };
  if (type === 'cut_time') return { beats: 2, beatType: 2, symbol: 'cut' };
  const first = value?.[0];
  if (!first) return undefined;
  const beats = first.num
    .replace(/[()]/g, '')
    .split(/[+\s]+/)
    .reduce((sum, n) => sum + Number(n), 0);
  const beatType = Number(first.den ?? 4);
  const usable =
    Number.isInteger(beats) && beats >= 1 && beats <= 64 && [1, 2, 4, 8, 16, 32, 64].includes(beatType);
  return usable ? { beats, beatType } : undefined;
}

/**
 * A key by its home and the name of its mode; the accidentals written beside them (“Am ^g”) stand before their notes. Where no mode is
 * named the accidentals are the key signature.
 */
function keyOf(key: AbcKey, accidentals: ReadonlyMap<string, number>): Key {
  const named = key.mode ? parseKey(`${key.root ?? ''}${key.acc ?? ''} ${key.mode}`) : undefined;
  if (named) return named;
  const fifths = [...accidentals.values()].reduce((sum, alter) => sum + Math.sign(alter), 0);
  return { fifths: Math.max(-7, Math.min(7, fifths)), mode: modeNamed(key.mode ?? '') ?? 'major' };
}

function clefOf(type: string): Pick<ClefMark, 'sign' | 'line' | 'octaves'> | undefined {
  const octaves = type.endsWith('-8') ? -1 : type.endsWith('+8') ? 1 : 0;
  const more = octaves ? { octaves } : {};
  if (type.startsWith('treble')) return { sign: 'G', line: 2, ...more };
  if (type.startsWith('bass')) return { sign: 'F', line: 4, ...more };
  if (type.startsWith('alto')) return { sign: 'C', line: 3, ...more };
  if (type.startsWith('tenor')) return { sign: 'C', line: 4, ...more };
  return undefined;
}

/** Quarter notes per minute of a tempo field; a bare number counts quarters. */
function quartersPerMinute(tempo: AbcTempo | undefined): number {
  const beat = (tempo?.duration ?? [0.25]).reduce((sum, d) => sum + d, 0);
  const quarters = (tempo?.bpm ?? 0) * beat * 4;
  return quarters > 0 && quarters < 1000 ? quarters : 0;
}

function sharedMarks(decorations: readonly string[]): { first: Partial<Note>; all: Partial<Note> } {
  const articulations = decorations.flatMap((d) => ARTICULATION_OF[d] ?? []);
  // A gracing says how the note is graced, whatever stands beside it.
  const isGraced = decorations.includes('irishroll');
  const ornaments = decorations.flatMap((d) => {
    const kind = isGraced ? undefined : ORNAMENT_OF[d];
    return kind ? [{ kind }] : [];
  });
  return {
    first: {
      ...(articulations.length ? { articulations } : {}),
      ...(ornaments.length ? { ornaments } : {}),
      ...(decorations.some((d) => d.includes('fermata')) ? { fermata: true } : {}),
    },
    all: decorations.includes('arpeggio') ? { arpeggio: 'plain' } : {},
  };
}

/** Slurs are labelled from 101 on; a score counts them from 1. */
function slursOf(from: Pick<AbcPitch, 'startSlur' | 'endSlur'>): Slur[] {
  const number = (label: number): number => (((label - 1) % 100) % 16) + 1;
  return [
    ...(from.endSlur ?? []).map((label): Slur => ({ type: 'stop', number: number(label) })),
    ...(from.startSlur ?? []).map(({ label }): Slur => ({ type: 'start', number: number(label) })),
  ];
}

/** Voices of the staves that a brace joins as one part; ids and voice numbers are given here. */
function partsOf(streams: readonly Stream[], tempo: number): ReadPart[] {
  const groups = [...new Set(streams.map((s) => s.group))].sort((a, b) => a - b);
  const longest = Math.max(0, ...streams.map((s) => s.measures.length));
  return groups.map((group, index): ReadPart => {
    const own = streams.filter((s) => s.group === group);
    const prefix = index === 0 ? '' : `p${index + 1}`;
    const numbers = measureNumbers(own[0]!.measures);
    const measures = Array.from({ length: longest }, (_, i): ReadMeasure | undefined => {
      const here = own.flatMap((stream) => {
        const measure = stream.measures[i];
        return measure ? [{ stream, measure }] : [];
      });
      const first = here[0]?.measure;
      if (!first) return undefined;
      let count = 0;
      return {
        ...first,
        number: numbers[i] ?? String(i + 1),
        content: Math.max(...here.map((h) => h.measure.content)),
        implicit: here.some((h) => h.measure.implicit),
        notes: here.flatMap(({ stream, measure }) =>
          measure.notes.map((note): Note => ({
            ...note,
            id: `${prefix}m${i}n${count++}`,
            voice: 4 * (stream.staff - stream.group) + note.voice,
          })),
        ),
        symbols: here.flatMap((h): readonly ChordSymbol[] => h.measure.symbols),
        clefs: here.flatMap((h): readonly ClefMark[] => (h.stream.voice === 0 ? h.measure.clefs : [])),
        marks: here.flatMap((h): readonly Mark[] => h.measure.marks),
        beamed: here.flatMap((h): readonly BeamPlace[] => h.measure.beamed ?? []),
        tempos: [
          ...(i === 0 && index === 0 && tempo > 0 ? [{ onset: 0, tempo }] : []),
          ...here.flatMap((h): readonly TempoMark[] => h.measure.tempos),
        ],
      };
    }).filter((m): m is ReadMeasure => m !== undefined);
    return {
      id: `P${index + 1}`,
      name: own[0]!.name,
      staves: Math.max(...own.map((s) => s.staff - s.group + 1)),
      measures,
    };
  });
}

/** Measures as they are counted: a pickup is 0, the second half of a measure that is cut in two has no number of its own. */
function measureNumbers(measures: readonly ReadMeasure[]): string[] {
  let number = 0;
  let missing = 0;
  return measures.map((measure, i) => {
    const full = measureLength(measure.time);
    if (i === 0 && measure.content < full && measures.length > 1) return '0';
    if (missing > 0 && measure.content <= missing) {
      missing = 0;
      return `X${number}`;
    }
    missing = measure.content < full ? full - measure.content : 0;
    return String(++number);
  });
}
