/**
 * MusicXML (score-partwise) into a Score. Parts share one frame of measures; each keeps its own divisions.
 * Pitches of transposing instruments are brought to concert pitch. What cannot be used is named in `warnings`.
 */
import { noteValue, TICKS_PER_QUARTER, type Ticks } from '../../score/ticks';
import { measureLength } from '../../score/metre';
import { STEPS, type Pitch, type Step } from '../../score/pitch';
import type {
  Route,
  Articulation,
  ChordSymbol,
  Lyric,
  Measure,
  Note,
  Part,
  PedalMark,
  Score,
  TimeSignature,
  Tuplet,
} from '../../score/score';
import { CHORD_KINDS, type ChordKindId } from '../../theory/chordKinds';
import { toFifths } from '../../theory/fifths';
import type { Key } from '../../theory/key';
import { transposeByInterval } from '../../transpose/interval';
import { InputError } from '../inputError';
import { child, childrenOf, numberOf, parseXml, textOf, type XmlElement } from './xml';

export interface ReadResult {
  readonly score: Score;
  readonly warnings: readonly string[];
}

const MAX_MEASURES = 4000;

/** Reads a MusicXML document. Throws InputError when it is not one, or holds no notes. */
export function readMusicXml(text: string): ReadResult {
  const document = parseXml(text.replace(/^\uFEFF/, ''));
  const root = document.name === 'score-timewise' ? partwise(document) : document;
  if (root.name !== 'score-partwise')
    throw new InputError(`This is XML, but not a MusicXML score: it begins with <${root.name}>.`);

  const warnings: string[] = [];
  const names = new Map(
    childrenOf(child(root, 'part-list'), 'score-part').map((p) => [
      p.attributes.id ?? '',
      textOf(p, 'part-name') ?? '',
    ]),
  );
  const readParts = childrenOf(root, 'part').map((part, index) =>
    readPart(part, index, names.get(part.attributes.id ?? '') ?? '', warnings),
  );
  const longest = readParts.reduce((a, b) => (b.measures.length > a.measures.length ? b : a), readParts[0]!);
  if (!longest || longest.measures.length === 0) throw new InputError('The score holds no measures.');
  if (longest.measures.length > MAX_MEASURES)
    throw new InputError(
      `The score has ${longest.measures.length} measures; up to ${MAX_MEASURES} can be read.`,
    );
  if (readParts.every((p) => p.measures.every((m) => m.notes.length === 0)))
    throw new InputError('The score holds no pitched notes.');

  const measures = frameOf(readParts);
  const shift = <T extends { onset: Ticks }>(item: T, index: number): T => ({
    ...item,
    onset: item.onset + measures[index]!.start,
  });
  const parts: Part[] = readParts
    .map(({ id, name, staves, measures: read }) => ({
      id,
      name,
      staves,
      notes: read.flatMap((m, i) => m.notes.map((n) => shift(n, i))).sort(inReadingOrder),
    }))
    .filter((part) => part.notes.length > 0);
  const withSymbols = readParts.find((p) => p.measures.some((m) => m.symbols.length > 0));
  const tempo = readParts.flatMap((p) => p.measures.map((m) => m.tempo)).find((t) => t > 0) ?? 0;

  return {
    score: {
      title:
        textOf(child(root, 'work'), 'work-title') ??
        textOf(root, 'movement-title') ??
        creditTitle(root) ??
        'Untitled',
      composer:
        childrenOf(child(root, 'identification'), 'creator')
          .find((c) => c.attributes.type === 'composer')
          ?.text.trim() ?? '',
      tempo,
      measures,
      parts,
      chordSymbols: withSymbols?.measures.flatMap((m, i) => m.symbols.map((s) => shift(s, i))) ?? [],
      pedals: readParts.flatMap((p) => p.measures.flatMap((m, i) => m.pedals.map((s) => shift(s, i)))),
    },
    warnings,
  };
}

const inReadingOrder = (a: Note, b: Note): number =>
  a.onset - b.onset ||
  a.staff - b.staff ||
  a.voice - b.voice ||
  a.pitch.octave * 7 + STEPS.indexOf(a.pitch.step) - (b.pitch.octave * 7 + STEPS.indexOf(b.pitch.step));

function creditTitle(root: XmlElement): string | undefined {
  const credit = childrenOf(root, 'credit').find((c) => textOf(c, 'credit-type') === 'title');
  return textOf(credit, 'credit-words');
}

/** A timewise document (parts inside measures) turned into a partwise one (measures inside parts). */
function partwise(root: XmlElement): XmlElement {
  const parts = new Map<string, XmlElement[]>();
  for (const measure of childrenOf(root, 'measure'))
    for (const part of childrenOf(measure, 'part')) {
      const id = part.attributes.id ?? '';
      parts.set(id, [...(parts.get(id) ?? []), { ...measure, children: part.children }]);
    }
  return {
    ...root,
    name: 'score-partwise',
    children: [
      ...root.children.filter((c) => c.name !== 'measure'),
      ...[...parts].map(([id, children]) => ({
        ...root,
        name: 'part',
        attributes: { id },
        text: '',
        children,
      })),
    ],
  };
}

/** One measure of one part, onsets counted from the start of the measure. */
interface ReadMeasure {
  readonly number: string;
  readonly implicit: boolean;
  readonly content: Ticks;
  readonly time: TimeSignature;
  readonly key: Key;
  readonly notes: readonly Note[];
  readonly symbols: readonly ChordSymbol[];
  readonly pedals: readonly PedalMark[];
  readonly tempo: number;
  readonly section?: string;
  readonly frame: Pick<Measure, 'barline' | 'repeatStart' | 'repeatEnd' | 'ending' | 'endingEnd' | 'route'>;
}

interface ReadPart {
  readonly id: string;
  readonly name: string;
  readonly staves: number;
  readonly measures: readonly ReadMeasure[];
}

function readPart(part: XmlElement, partIndex: number, name: string, warnings: string[]): ReadPart {
  let divisions = 1;
  let time: TimeSignature = { beats: 4, beatType: 4 };
  let key: Key = { fifths: 0, mode: 'major' };
  let staves = 1;
  let transpose = { diatonic: 0, chromatic: 0 };
  let unpitched = 0;
  const prefix = partIndex === 0 ? '' : `p${partIndex + 1}`;

  const measures = childrenOf(part, 'measure').map((element, index): ReadMeasure => {
    const ticks = (duration: number): Ticks => Math.round((duration * TICKS_PER_QUARTER) / divisions);
    const notes: Note[] = [];
    const symbols: ChordSymbol[] = [];
    const pedals: PedalMark[] = [];
    const frame: { -readonly [K in keyof ReadMeasure['frame']]: ReadMeasure['frame'][K] } = {};
    let section: string | undefined;
    let tempo = 0;
    let cursor: Ticks = 0;
    let chordOnset: Ticks = 0;
    let content: Ticks = 0;
    let count = 0;

    for (const item of element.children) {
      switch (item.name) {
        case 'attributes': {
          const read = readAttributes(item, { divisions, time, key, staves, transpose });
          ({ divisions, time, key, staves, transpose } = read);
          break;
        }
        case 'backup':
          cursor = Math.max(0, cursor - ticks(numberOf(item, 'duration') ?? 0));
          break;
        case 'forward':
          cursor += ticks(numberOf(item, 'duration') ?? 0);
          break;
        case 'note': {
          const isChord = !!child(item, 'chord');
          const grace = !!child(item, 'grace');
          const duration = grace ? 0 : ticks(numberOf(item, 'duration') ?? impliedDuration(item, divisions));
          const onset = isChord ? chordOnset : cursor;
          if (!isChord) {
            chordOnset = cursor;
            cursor += duration;
          }
          const measureRest = child(item, 'rest')?.attributes.measure === 'yes';
          if (!measureRest) content = Math.max(content, onset + duration);
          if (child(item, 'rest') || child(item, 'cue')) break;
          const written = readPitch(child(item, 'pitch'));
          if (!written) {
            unpitched += 1;
            break;
          }
          const staff = numberOf(item, 'staff') ?? 1;
          staves = Math.max(staves, staff);
          const voice = Number(textOf(item, 'voice')?.replace(/\D/g, '')) || staff;
          notes.push({
            id: `${prefix}m${index}n${count++}`,
            onset,
            duration,
            pitch: transposeByInterval(written, transpose),
            staff,
            voice,
            ...(grace ? { grace } : {}),
            ...readMarks(item),
          });
          break;
        }
        case 'harmony': {
          const symbol = readHarmony(item);
          if (symbol !== undefined)
            symbols.push({ onset: cursor + ticks(numberOf(item, 'offset') ?? 0), chord: symbol });
          break;
        }
        case 'direction': {
          const read = readDirection(item);
          section ??= read.section;
          tempo ||= read.tempo;
          if (read.route) frame.route = { ...frame.route, ...read.route };
          if (read.pedal) pedals.push({ onset: cursor, type: read.pedal });
          break;
        }
        case 'sound':
          tempo ||= Number(item.attributes.tempo) || 0;
          Object.assign(frame, withRoute(frame.route, routeOfSound(item)));
          break;
        case 'barline':
          Object.assign(frame, readBarline(item));
          break;
      }
      content = Math.max(content, cursor);
    }
    return {
      number: element.attributes.number ?? String(index + 1),
      implicit: element.attributes.implicit === 'yes',
      content,
      time,
      key,
      notes,
      symbols,
      pedals,
      tempo,
      frame,
      ...(section ? { section } : {}),
    };
  });
  if (unpitched > 0)
    warnings.push(`${name || 'A part'}: ${unpitched} unpitched notes (percussion) were left out.`);
  return { id: part.attributes.id ?? `P${partIndex + 1}`, name, staves, measures };
}

/** Duration in divisions from the note's type and dots, for files that leave `<duration>` out. */
function impliedDuration(note: XmlElement, divisions: number): number {
  const type = textOf(note, 'type');
  const value = type && NOTE_TYPES[type];
  if (!value) return 0;
  const dots = childrenOf(note, 'dot').length;
  return ((4 * divisions) / value) * (2 - 1 / 2 ** dots);
}

const NOTE_TYPES: Readonly<Record<string, number>> = {
  breve: 0.5,
  whole: 1,
  half: 2,
  quarter: 4,
  eighth: 8,
  '16th': 16,
  '32nd': 32,
  '64th': 64,
  '128th': 128,
};

interface Attributes {
  divisions: number;
  time: TimeSignature;
  key: Key;
  staves: number;
  transpose: { diatonic: number; chromatic: number };
}

function readAttributes(element: XmlElement, before: Attributes): Attributes {
  const divisions = numberOf(element, 'divisions');
  const timeElement = child(element, 'time');
  const beats = textOf(timeElement, 'beats')
    ?.split('+')
    .reduce((sum, part) => sum + Number(part), 0);
  const beatType = numberOf(timeElement, 'beat-type');
  const keyElement = child(element, 'key');
  const fifths = numberOf(keyElement, 'fifths');
  const shift = child(element, 'transpose');
  const octaves = numberOf(shift, 'octave-change') ?? 0;
  const symbol = timeElement?.attributes.symbol;
  return {
    divisions: divisions && divisions > 0 ? divisions : before.divisions,
    time:
      beats && beats > 0 && beatType && noteValue(beatType) >= 1
        ? { beats, beatType, ...(symbol === 'cut' || symbol === 'common' ? { symbol } : {}) }
        : before.time,
    key:
      fifths === undefined || Math.abs(fifths) > 7
        ? before.key
        : { fifths, mode: textOf(keyElement, 'mode') === 'minor' ? 'minor' : 'major' },
    staves: numberOf(element, 'staves') ?? before.staves,
    transpose: shift
      ? {
          diatonic: (numberOf(shift, 'diatonic') ?? 0) + 7 * octaves,
          chromatic: (numberOf(shift, 'chromatic') ?? 0) + 12 * octaves,
        }
      : before.transpose,
  };
}

function readPitch(element: XmlElement | undefined): Pitch | undefined {
  const step = textOf(element, 'step') as Step | undefined;
  const octave = numberOf(element, 'octave');
  if (!step || !STEPS.includes(step) || octave === undefined) return undefined;
  return { step, alter: Math.round(numberOf(element, 'alter') ?? 0), octave };
}

const ARTICULATIONS: readonly Articulation[] = [
  'staccato',
  'staccatissimo',
  'tenuto',
  'accent',
  'strong-accent',
];

/** Everything about a note that is neither pitch nor time. */
function readMarks(note: XmlElement): Partial<Note> {
  const ties = childrenOf(note, 'tie').map((t) => t.attributes.type);
  const notations = childrenOf(note, 'notations');
  const tied = notations.flatMap((n) => childrenOf(n, 'tied').map((t) => t.attributes.type));
  const starts = ties.includes('start') || tied.includes('start');
  const stops = ties.includes('stop') || tied.includes('stop');
  const slurs = notations.flatMap((n) => childrenOf(n, 'slur').map((s) => s.attributes.type));
  const marks = notations.flatMap((n) => child(n, 'articulations')?.children.map((a) => a.name) ?? []);
  const articulations = ARTICULATIONS.filter((a) => marks.includes(a));
  const finger = notations
    .map((n) => numberOf(child(n, 'technical'), 'fingering'))
    .find((f) => f !== undefined && f >= 1 && f <= 5);
  const modification = child(note, 'time-modification');
  const actual = numberOf(modification, 'actual-notes');
  const normal = numberOf(modification, 'normal-notes');
  const tuplet: Tuplet | undefined = actual && normal && actual !== normal ? { actual, normal } : undefined;
  const lyrics = childrenOf(note, 'lyric')
    .filter((l) => l.attributes.name !== 'counts' && textOf(l, 'text'))
    .map((l): Lyric => {
      const syllabic = textOf(l, 'syllabic');
      return {
        line: 'words',
        verse: Number(l.attributes.number) || 1,
        text: textOf(l, 'text')!,
        syllabic: syllabic === 'begin' || syllabic === 'middle' || syllabic === 'end' ? syllabic : 'single',
      };
    });
  return {
    ...(starts || stops ? { tie: starts && stops ? 'both' : starts ? 'start' : 'stop' } : {}),
    ...(tuplet ? { tuplet } : {}),
    ...(articulations.length ? { articulations } : {}),
    ...(notations.some((n) => child(n, 'fermata')) ? { fermata: true } : {}),
    ...(slurs.includes('start') ? { slurStart: true } : {}),
    ...(slurs.includes('stop') ? { slurStop: true } : {}),
    ...(finger ? { finger } : {}),
    ...(lyrics.length ? { lyrics } : {}),
  };
}

const KIND_BY_NAME = new Map(
  Object.entries(CHORD_KINDS).map(([id, kind]) => [kind.musicxml as string, id as ChordKindId]),
);

/** Kinds of the format that we play as a simpler chord of the same function. */
const NEAREST_KIND: Readonly<Record<string, ChordKindId>> = {
  'augmented-seventh': 'augmented',
  'dominant-11th': 'ninth',
  'dominant-13th': 'ninth',
  'major-11th': 'major9',
  'major-13th': 'major9',
  'minor-11th': 'minor9',
  'minor-13th': 'minor9',
  Neapolitan: 'major',
  pedal: 'major',
  other: 'major',
};

/** A chord, null for "no chord", undefined where the element names neither. */
function readHarmony(element: XmlElement): ChordSymbol['chord'] | undefined {
  const kind = textOf(element, 'kind') ?? 'major';
  if (kind === 'none') return null;
  const root = child(element, 'root');
  const step = textOf(root, 'root-step') as Step | undefined;
  if (!step || !STEPS.includes(step)) return undefined;
  const bass = child(element, 'bass');
  const bassStep = textOf(bass, 'bass-step') as Step | undefined;
  const rootFifths = toFifths({ step, alter: numberOf(root, 'root-alter') ?? 0 });
  const bassFifths =
    bassStep && STEPS.includes(bassStep)
      ? toFifths({ step: bassStep, alter: numberOf(bass, 'bass-alter') ?? 0 })
      : undefined;
  return {
    root: rootFifths,
    kind: KIND_BY_NAME.get(kind) ?? NEAREST_KIND[kind] ?? 'major',
    ...(bassFifths !== undefined && bassFifths !== rootFifths ? { bass: bassFifths } : {}),
  };
}

/** Route marks of a `<sound>` element. */
function routeOfSound(sound: XmlElement | undefined): Route {
  const at = sound?.attributes ?? {};
  return {
    ...(at.segno ? { segno: true } : {}),
    ...(at.coda ? { coda: true } : {}),
    ...(at.fine ? { fine: true } : {}),
    ...(at.tocoda ? { toCoda: true } : {}),
    ...(at.dacapo === 'yes'
      ? { jump: 'da capo' as const }
      : at.dalsegno
        ? { jump: 'dal segno' as const }
        : {}),
  };
}

/** Route marks that a program wrote as words or signs only. */
function routeOfWords(types: readonly XmlElement[]): Route {
  const words = types.flatMap((t) => childrenOf(t, 'words').map((w) => w.text)).join(' ');
  return {
    ...(types.some((t) => child(t, 'segno')) ? { segno: true } : {}),
    ...(types.some((t) => child(t, 'coda')) ? { coda: true } : {}),
    ...(/^\s*fine\s*$/i.test(words) ? { fine: true } : {}),
    ...(/\bto coda\b/i.test(words) ? { toCoda: true } : {}),
    ...(/\bD\. ?C\b|\bda capo\b/i.test(words)
      ? { jump: 'da capo' as const }
      : /\bD\. ?S\b|\bdal segno\b/i.test(words)
        ? { jump: 'dal segno' as const }
        : {}),
  };
}

function withRoute(before: Route | undefined, found: Route): { route?: Route } {
  const route = { ...before, ...found };
  return Object.keys(route).length > 0 ? { route } : {};
}

function readDirection(element: XmlElement): {
  section?: string;
  tempo: number;
  pedal?: PedalMark['type'];
  route?: Route;
} {
  const types = childrenOf(element, 'direction-type');
  const section = types.map((t) => textOf(t, 'rehearsal')).find((t) => t);
  const pedal = types.map((t) => child(t, 'pedal')?.attributes.type).find((t) => t);
  const metronome = types.map((t) => child(t, 'metronome')).find((m) => m);
  const perMinute = numberOf(metronome, 'per-minute');
  const unit = NOTE_TYPES[textOf(metronome, 'beat-unit') ?? ''];
  const dotted = child(metronome, 'beat-unit-dot') ? 1.5 : 1;
  const sound = Number(child(element, 'sound')?.attributes.tempo) || 0;
  return {
    tempo: sound || (perMinute && unit ? (perMinute * 4 * dotted) / unit : 0),
    ...(section ? { section } : {}),
    ...(pedal === 'start' || pedal === 'change' || pedal === 'stop' ? { pedal } : {}),
    ...withRoute(routeOfWords(types), routeOfSound(child(element, 'sound'))),
  };
}

function readBarline(element: XmlElement): ReadMeasure['frame'] {
  const style = textOf(element, 'bar-style');
  const direction = child(element, 'repeat')?.attributes.direction;
  const ending = child(element, 'ending');
  const isRight = element.attributes.location !== 'left';
  return {
    ...(isRight && style === 'light-light' ? { barline: 'double' } : {}),
    ...(isRight && style === 'light-heavy' && !direction ? { barline: 'final' } : {}),
    ...(direction === 'forward' ? { repeatStart: true } : {}),
    ...(direction === 'backward' ? { repeatEnd: true } : {}),
    ...(ending?.attributes.type === 'start' ? { ending: ending.attributes.number ?? '1' } : {}),
    ...(ending?.attributes.type === 'stop' || ending?.attributes.type === 'discontinue'
      ? { endingEnd: true }
      : {}),
  };
}

/** The frame of measures that all parts share: lengths from what the longest part holds, pickups placed. */
function frameOf(parts: readonly ReadPart[]): Measure[] {
  const lead = parts.reduce((a, b) => (b.measures.length > a.measures.length ? b : a), parts[0]!);
  const contents = lead.measures.map((_, i) => Math.max(...parts.map((p) => p.measures[i]?.content ?? 0)));
  let start: Ticks = 0;
  let carried: Ticks = 0;
  return lead.measures.map((measure, index): Measure => {
    const full = measureLength(measure.time);
    const content = contents[index]!;
    const previous = lead.measures[index - 1];
    const cut =
      measure.implicit ||
      index === 0 ||
      index === lead.measures.length - 1 ||
      !!measure.frame.repeatEnd ||
      !!measure.frame.repeatStart ||
      !!previous?.frame.repeatEnd ||
      carried > 0;
    const short = content > 0 && content < full;
    const length = short && cut ? content : Math.max(full, content);
    // A short first measure is a pickup and ends with the barline; a short one later completes the one before it.
    const beginsAt =
      length < full ? (index === 0 ? full - length : carried > 0 ? Math.min(carried, full - length) : 0) : 0;
    carried = length < full && index > 0 && beginsAt === 0 ? length : 0;
    const section = parts.map((p) => p.measures[index]?.section).find((s) => s);
    const result: Measure = {
      index,
      number: measure.number,
      start,
      length,
      time: measure.time,
      key: measure.key,
      beginsAt,
      ...measure.frame,
      ...(section ? { section } : {}),
    };
    start += length;
    return result;
  });
}
