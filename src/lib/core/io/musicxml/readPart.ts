/**
 * One part of a MusicXML score, measure by measure: a cursor walks through notes, backups and forwards, and every item
 * gets its onset in ticks from the start of its measure.
 */
import { noteValue, TICKS_PER_QUARTER, type Ticks } from '../../score/ticks';
import type {
  ChordSymbol,
  ClefMark,
  Mark,
  MeasureChange,
  Note,
  PedalMark,
  TempoMark,
  TimeSignature,
} from '../../score/score';
import type { Key } from '../../theory/key';
import type { ReadMeasure, ReadPart } from '../readMeasures';
import type { Interval } from '../../transpose/interval';
import { transposeByInterval } from '../../transpose/interval';
import { NOTE_TYPES, readBarline, readClefs, readDirection, routeOfSound } from './readDirection';
import { readHarmony } from './readHarmony';
import { impliedDuration, readMarks, readPitch } from './readNote';
import { child, childrenOf, numberOf, textOf, type XmlElement } from './xml';

export interface PartOptions {
  readonly index: number;
  readonly name: string;
  /** Counts that we wrote take the first lyric line: the words begin at the second. */
  readonly countsAbove: boolean;
  readonly warnings: string[];
}

/** What holds until it is changed. */
interface State {
  divisions: number;
  time: TimeSignature;
  key: Key;
  staves: number;
  transpose: Interval;
  tablature: ReadonlySet<number>;
}

/** What was left out of a part, counted for one warning each. */
interface LeftOut {
  unpitched: number;
  tablature: number;
  unreadable: { count: number; first?: string };
}

/** Reads a part. What cannot be used is counted and named in the warnings. */
export function readPart(part: XmlElement, options: PartOptions): ReadPart {
  const state: State = {
    divisions: 1,
    time: { beats: 4, beatType: 4 },
    key: { fifths: 0, mode: 'major' },
    staves: 1,
    transpose: { diatonic: 0, chromatic: 0 },
    tablature: new Set(),
  };
  const leftOut: LeftOut = { unpitched: 0, tablature: 0, unreadable: { count: 0 } };
  const measures = childrenOf(part, 'measure').map((element, index) =>
    readMeasure(element, index, state, options, leftOut),
  );
  const name = options.name || `Part ${options.index + 1}`;
  const { warnings } = options;
  const notes = (count: number): string => (count === 1 ? '1 note' : `${count} notes`);
  if (leftOut.unpitched > 0)
    warnings.push(`${name}: ${leftOut.unpitched} unpitched notes (percussion) were left out.`);
  if (leftOut.tablature > 0)
    warnings.push(`${name}: ${notes(leftOut.tablature)} written as tablature left out.`);
  if (leftOut.unreadable.count > 0)
    warnings.push(
      `${name}: ${notes(leftOut.unreadable.count)} without a usable pitch left out, the first in ${leftOut.unreadable.first}.`,
    );
  return {
    id: part.attributes.id || `P${options.index + 1}`,
    name: options.name,
    staves: state.staves,
    measures: withOwnVoices(measures),
  };
}

function readMeasure(
  element: XmlElement,
  index: number,
  state: State,
  { index: partIndex, countsAbove }: PartOptions,
  leftOut: LeftOut,
): ReadMeasure {
  const prefix = partIndex === 0 ? '' : `p${partIndex + 1}`;
  // The cursor is not rounded, so that tuplets no tick divides still end where the beat does.
  const quarters = (divisions: number): number => (divisions * TICKS_PER_QUARTER) / state.divisions;
  const notes: Note[] = [];
  const symbols: ChordSymbol[] = [];
  const pedals: PedalMark[] = [];
  const clefs: ClefMark[] = [];
  const marks: Mark[] = [];
  const tempos: TempoMark[] = [];
  const changes: MeasureChange[] = [];
  const frame: { -readonly [K in keyof ReadMeasure['frame']]: ReadMeasure['frame'][K] } = {};
  let section: string | undefined;
  let beginning: { time: TimeSignature; key: Key } | undefined;
  let cursor = 0;
  let chordOnset = 0;
  let chordVoice = 1;
  let content = 0;
  let graces = 0; // grace notes since the last full note
  const at = (offset = 0): Ticks => Math.max(0, Math.round(cursor + offset));

  for (const item of element.children) {
    switch (item.name) {
      case 'attributes': {
        const before = { time: state.time, key: state.key };
        readAttributes(item, state);
        for (const clef of readClefs(item))
          if ('tablature' in clef) state.tablature = new Set([...state.tablature, clef.tablature]);
          else clefs.push({ onset: at(), ...clef });
        if (cursor > 0 && (state.key !== before.key || state.time !== before.time)) {
          beginning ??= before;
          changes.push({
            onset: at(),
            ...(state.key !== before.key ? { key: state.key } : {}),
            ...(state.time !== before.time ? { time: state.time } : {}),
          });
        }
        break;
      }
      case 'backup':
        cursor = Math.max(0, cursor - quarters(lengthOf(item)));
        break;
      case 'forward':
        cursor += quarters(lengthOf(item));
        break;
      case 'note': {
        const isChord = !!child(item, 'chord');
        const graceElement = child(item, 'grace');
        const length = graceElement
          ? 0
          : child(item, 'duration')
            ? quarters(lengthOf(item))
            : impliedDuration(item) * TICKS_PER_QUARTER;
        const start = isChord ? chordOnset : cursor;
        if (!isChord) {
          chordOnset = cursor;
          cursor += length;
        }
        const rest = child(item, 'rest');
        if (rest?.attributes.measure !== 'yes') content = Math.max(content, start + length);
        if (!isChord && !graceElement) graces = 0;
        if (rest) break;
        const written = readPitch(child(item, 'pitch'));
        if (!written) {
          if (child(item, 'unpitched')) leftOut.unpitched += 1;
          else {
            leftOut.unreadable.count += 1;
            leftOut.unreadable.first ??= `measure ${element.attributes.number ?? index + 1} (line ${item.line})`;
          }
          break;
        }
        const staff = Math.max(1, Math.round(numberOf(item, 'staff') ?? 1));
        if (state.tablature.has(staff)) {
          leftOut.tablature += 1;
          break;
        }
        state.staves = Math.max(state.staves, staff);
        const voice =
          Number(textOf(item, 'voice')?.replace(/\D/g, '')) || (isChord ? chordVoice : 4 * (staff - 1) + 1);
        chordVoice = voice;
        const onset = Math.round(start);
        if (graceElement && !isChord) graces += 1;
        notes.push({
          id: `${prefix}m${index}n${notes.length}`,
          onset,
          duration: Math.round(start + length) - onset,
          pitch: transposeByInterval(written, state.transpose),
          staff,
          voice,
          ...(graceElement
            ? {
                grace: {
                  slash: graceElement.attributes.slash === 'yes',
                  type: NOTE_TYPES[textOf(item, 'type') ?? ''] ?? 8,
                  order: graces - 1,
                },
              }
            : {}),
          ...(child(item, 'cue') ? { cue: true } : {}),
          ...readMarks(item, countsAbove),
        });
        break;
      }
      case 'harmony': {
        const symbol = readHarmony(item);
        if (symbol !== undefined)
          symbols.push({ onset: at(quarters(numberOf(item, 'offset') ?? 0)), chord: symbol });
        break;
      }
      case 'direction': {
        const read = readDirection(item);
        const onset = at(quarters(numberOf(item, 'offset') ?? 0));
        const staff = Math.max(1, Math.round(numberOf(item, 'staff') ?? 1));
        section ??= read.section;
        if (read.tempo > 0) tempos.push({ onset, tempo: read.tempo });
        if (Object.keys(read.route).length > 0) frame.route = { ...frame.route, ...read.route };
        if (read.pedal) pedals.push({ onset, type: read.pedal });
        marks.push(...read.marks.map((mark): Mark => ({ onset, staff, ...mark })));
        break;
      }
      case 'sound': {
        const tempo = Number(item.attributes.tempo) || 0;
        const route = routeOfSound(item);
        if (tempo > 0) tempos.push({ onset: at(), tempo });
        if (Object.keys(route).length > 0) frame.route = { ...frame.route, ...route };
        break;
      }
      case 'barline':
        Object.assign(frame, readBarline(item));
        break;
    }
    content = Math.max(content, cursor);
  }
  return {
    number: element.attributes.number ?? String(index + 1),
    implicit: element.attributes.implicit === 'yes',
    content: Math.round(content),
    time: beginning?.time ?? state.time,
    key: beginning?.key ?? state.key,
    changes,
    notes: withGracesAfter(notes),
    symbols,
    pedals,
    clefs,
    marks,
    tempos,
    frame,
    ...(section ? { section } : {}),
  };
}

/** A length in divisions; a damaged file may say less than nothing. */
const lengthOf = (item: XmlElement): number => Math.max(0, numberOf(item, 'duration') ?? 0);

/** Grace notes that no note of their voice follows in the measure belong to the note before them. */
function withGracesAfter(notes: readonly Note[]): Note[] {
  return notes.map((note, i) => {
    if (!note.grace) return note;
    const own = notes.filter((n) => n.voice === note.voice && !n.grace);
    if (own.some((n) => n.onset === note.onset && notes.indexOf(n) > i) || own.length === 0) return note;
    const before = own.filter((n) => n.onset < note.onset).at(-1);
    const follows = own.some((n) => n.onset >= note.onset);
    return before && !follows
      ? { ...note, onset: before.onset, grace: { ...note.grace, after: true } }
      : note;
  });
}

/**
 * A voice number stands for one voice. Where a file uses one for two staves at the same time, the notes of the lower
 * staff get the number that is usual there.
 */
function withOwnVoices(measures: readonly ReadMeasure[]): readonly ReadMeasure[] {
  const shared = new Set<number>();
  for (const { notes } of measures) {
    const sounding = notes.filter((n) => !n.grace);
    for (const lower of sounding)
      if (lower.staff > 1 && !shared.has(lower.voice))
        for (const upper of sounding)
          if (
            upper.voice === lower.voice &&
            upper.staff < lower.staff &&
            upper.onset < lower.onset + lower.duration &&
            lower.onset < upper.onset + upper.duration &&
            (upper.onset !== lower.onset || upper.duration !== lower.duration)
          )
            shared.add(lower.voice);
  }
  if (shared.size === 0) return measures;
  return measures.map((measure) => ({
    ...measure,
    notes: measure.notes.map((n) =>
      shared.has(n.voice) && n.staff > 1 ? { ...n, voice: n.voice + 4 * (n.staff - 1) } : n,
    ),
  }));
}

function readAttributes(element: XmlElement, state: State): void {
  const divisions = numberOf(element, 'divisions');
  if (divisions && divisions > 0) state.divisions = divisions;
  state.time = readTime(child(element, 'time')) ?? state.time;
  state.key = readKey(child(element, 'key')) ?? state.key;
  state.staves = Math.min(8, Math.max(state.staves, Math.round(numberOf(element, 'staves') ?? 1)));
  const shift = child(element, 'transpose');
  if (shift) {
    const octaves = numberOf(shift, 'octave-change') ?? 0;
    const chromatic = Math.round(numberOf(shift, 'chromatic') ?? 0);
    const diatonic = numberOf(shift, 'diatonic') ?? Math.round((chromatic * 7) / 12);
    state.transpose = { diatonic: diatonic + 7 * octaves, chromatic: chromatic + 12 * octaves };
  }
}

/** A metre; "3+2" over 8 is five eighths, and several pairs are added up. */
function readTime(element: XmlElement | undefined): TimeSignature | undefined {
  if (!element) return undefined;
  const types = childrenOf(element, 'beat-type').map((t) => Number(t.text));
  const finest = Math.max(...types);
  const beats = childrenOf(element, 'beats').reduce((sum, b, i) => {
    const own = b.text.split('+').reduce((s, part) => s + Number(part), 0);
    return sum + (own * finest) / (types[i] ?? finest);
  }, 0);
  const usable = Number.isInteger(beats) && beats > 0 && beats <= 64 && Number.isInteger(Math.log2(finest));
  if (!usable || noteValue(finest) < 1 || finest > 64) return undefined;
  const { symbol } = element.attributes;
  return { beats, beatType: finest, ...(symbol === 'cut' || symbol === 'common' ? { symbol } : {}) };
}

function readKey(element: XmlElement | undefined): Key | undefined {
  const fifths = numberOf(element, 'fifths');
  if (fifths === undefined || !Number.isInteger(fifths) || Math.abs(fifths) > 7) return undefined;
  const mode = textOf(element, 'mode');
  return { fifths, mode: mode === 'minor' || mode === 'aeolian' ? 'minor' : 'major' };
}
