/**
 * One measure of a MusicXML part: a cursor walks through notes, backups and forwards, and every item gets its onset in ticks from
 * the start of the measure. One reader for each kind of item.
 */
import { noteValue, TICKS_PER_QUARTER, type Ticks } from '../../../score/ticks';
import type {
  ChordSymbol,
  ClefMark,
  Mark,
  MeasureChange,
  Note,
  PedalMark,
  TempoMark,
  TimeSignature,
} from '../../../score/score';
import type { Key } from '../../../theory/key';
import { modeNamed } from '../../../theory/modes';
import type { BeamPlace } from '../groups';
import type { ReadMeasure } from '../readMeasures';
import type { Interval } from '../../../transpose/interval';
import { transposeByInterval } from '../../../transpose/interval';
import { NOTE_TYPES, readBarline, readClefs, readDirection, routeOfSound } from './readDirection';
import { readHarmony } from './readHarmony';
import { impliedDuration, readMarks, readPitch } from './readNote';
import { child, childrenOf, numberOf, textOf, type XmlElement } from './xml';

/** What holds until it is changed. */
interface State {
  divisions: number;
  /** Whether a metre has been named. */
  hasTime: boolean;
  time: TimeSignature;
  key: Key;
  staves: number;
  transpose: Interval;
  tablature: ReadonlySet<number>;
}

/** What was left out of a part, counted for one warning each. */
export interface LeftOut {
  unpitched: number;
  tablature: number;
  unreadable: { count: number; first?: string };
  /** Lengths below nothing, taken as none. */
  lengths: { count: number; first?: string };
  /** The first place where a quarter is divided by nothing. */
  divisions?: string;
}

/** What a measure is read with: what goes on from the one before, and what is counted over the part. */
interface Reading {
  /** Index of the part: names the notes of all but the first. */
  readonly part: number;
  readonly state: State;
  readonly leftOut: LeftOut;
  /** Counts that we wrote take the first lyric line: the words begin at the second. */
  readonly countsAbove: boolean;
}

/** What holds before anything is said. */
export const startOfPart = (): State => ({
  divisions: 1,
  hasTime: false,
  time: { beats: 4, beatType: 4 },
  key: { fifths: 0, mode: 'major' },
  staves: 1,
  transpose: { diatonic: 0, chromatic: 0 },
  tablature: new Set(),
});

/** A measure while it is read. */
interface Draft extends Reading {
  readonly index: number;
  readonly number: string | undefined;
  readonly notes: Note[];
  readonly symbols: ChordSymbol[];
  readonly pedals: PedalMark[];
  readonly clefs: ClefMark[];
  readonly marks: Mark[];
  readonly tempos: TempoMark[];
  readonly beamed: BeamPlace[];
  readonly changes: MeasureChange[];
  frame: ReadMeasure['frame'];
  section?: string | undefined;
  /** What held at the start, where it has changed since. */
  beginning?: { readonly time: TimeSignature; readonly key: Key };
  /** In ticks, not rounded, so that tuplets no tick divides still end where the beat does. */
  cursor: number;
  chordOnset: number;
  chordVoice: number;
  /** Where the last thing that sounds ends. */
  content: number;
  /** Grace notes since the last full note. */
  graces: number;
}

const ticksOf = ({ state }: Draft, divisions: number): number =>
  (divisions * TICKS_PER_QUARTER) / state.divisions;

/** The place of an item that says where it stands by an offset in divisions. */
const placeOf = (draft: Draft, item?: XmlElement): Ticks =>
  Math.max(0, Math.round(draft.cursor + ticksOf(draft, (item && numberOf(item, 'offset')) ?? 0)));

const staffOf = (item: XmlElement): number => Math.max(1, Math.round(numberOf(item, 'staff') ?? 1));

const READERS: Readonly<Record<string, (draft: Draft, item: XmlElement) => void>> = {
  attributes: takeAttributes,
  backup: (draft, item) => {
    draft.cursor = Math.max(0, draft.cursor - ticksOf(draft, lengthOf(draft, item)));
  },
  forward: (draft, item) => {
    draft.cursor += ticksOf(draft, lengthOf(draft, item));
  },
  note: takeNote,
  harmony: (draft, item) => {
    const chord = readHarmony(item);
    if (chord !== undefined) draft.symbols.push({ onset: placeOf(draft, item), chord });
  },
  direction: takeDirection,
  sound: (draft, item) =>
    takeSound(
      draft,
      placeOf(draft),
      { tempo: Number(item.attributes.tempo) || 0, isHeard: true },
      routeOfSound(item),
    ),
  barline: (draft, item) => {
    draft.frame = { ...draft.frame, ...readBarline(item) };
  },
};

/** Reads a measure, by its index from 0. `reading.state` is what holds after it. */
export function readMeasure(element: XmlElement, index: number, reading: Reading): ReadMeasure {
  const draft: Draft = {
    ...reading,
    index,
    number: element.attributes.number,
    notes: [],
    symbols: [],
    pedals: [],
    clefs: [],
    marks: [],
    tempos: [],
    beamed: [],
    changes: [],
    frame: {},
    cursor: 0,
    chordOnset: 0,
    chordVoice: 1,
    content: 0,
    graces: 0,
  };
  for (const item of element.children) {
    READERS[item.name]?.(draft, item);
    draft.content = Math.max(draft.content, draft.cursor);
  }
  const {
    state,
    beginning,
    content,
    notes,
    symbols,
    pedals,
    clefs,
    marks,
    tempos,
    beamed,
    changes,
    frame,
    section,
  } = draft;
  return {
    number: draft.number ?? String(index + 1),
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
    beamed,
    frame,
    ...(section ? { section } : {}),
  };
}

function takeAttributes(draft: Draft, item: XmlElement): void {
  const { state } = draft;
  const before = { time: state.time, key: state.key };
  readAttributes(item, state);
  if ((numberOf(item, 'divisions') ?? 1) <= 0) draft.leftOut.divisions ??= placeText(draft, item);
  const onset = placeOf(draft);
  for (const clef of readClefs(item))
    if ('tablature' in clef) state.tablature = new Set([...state.tablature, clef.tablature]);
    else draft.clefs.push({ onset, ...clef });
  if (draft.cursor === 0 || (state.key === before.key && state.time === before.time)) return;
  draft.beginning ??= before;
  draft.changes.push({
    onset,
    ...(state.key !== before.key ? { key: state.key } : {}),
    ...(state.time !== before.time ? { time: state.time } : {}),
  });
}

/** A note or a rest: moves the cursor, and keeps what a keyboard can play. */
function takeNote(draft: Draft, item: XmlElement): void {
  const isChord = !!child(item, 'chord');
  const grace = child(item, 'grace');
  const length = grace
    ? 0
    : child(item, 'duration')
      ? ticksOf(draft, lengthOf(draft, item))
      : impliedDuration(item) * TICKS_PER_QUARTER;
  const start = isChord ? draft.chordOnset : draft.cursor;
  if (!isChord) {
    draft.chordOnset = draft.cursor;
    draft.cursor += length;
  }
  const rest = child(item, 'rest');
  if (rest?.attributes.measure !== 'yes') draft.content = Math.max(draft.content, start + length);
  if (!isChord && !grace) draft.graces = 0;
  if (rest) return;
  const pitch = usablePitch(draft, item);
  if (!pitch) return;
  const { state } = draft;
  const staff = staffOf(item);
  state.staves = Math.max(state.staves, staff);
  const voice =
    Number(textOf(item, 'voice')?.replace(/\D/g, '')) || (isChord ? draft.chordVoice : 4 * (staff - 1) + 1);
  draft.chordVoice = voice;
  if (grace && !isChord) draft.graces += 1;
  const onset = Math.round(start);
  const beam = isChord
    ? undefined
    : childrenOf(item, 'beam').find((b) => (b.attributes.number ?? '1') === '1');
  if (beam && !grace) draft.beamed.push({ at: onset, begins: beam.text.trim() === 'begin' });
  draft.notes.push({
    id: `${draft.part === 0 ? '' : `p${draft.part + 1}`}m${draft.index}n${draft.notes.length}`,
    onset,
    duration: Math.round(start + length) - onset,
    pitch: transposeByInterval(pitch, state.transpose),
    staff,
    voice,
    ...(grace ? { grace: readGrace(item, grace, draft.graces - 1) } : {}),
    ...(child(item, 'cue') ? { cue: true } : {}),
    ...readMarks(item, draft.countsAbove),
  });
}

const readGrace = (item: XmlElement, grace: XmlElement, order: number): NonNullable<Note['grace']> => ({
  slash: grace.attributes.slash === 'yes',
  ...(isShort(grace) ? { short: true } : {}),
  type: NOTE_TYPES[textOf(item, 'type') ?? ''] ?? 8,
  order,
});

/** A grace note that says how much it takes of its main note, which is no more than a quarter of it. */
function isShort(grace: XmlElement): boolean {
  const taken = Number(grace.attributes['steal-time-following'] ?? NaN);
  return taken > 0 && taken <= 25;
}

/** The written pitch of a note; what has none that can be used is counted. */
function usablePitch(draft: Draft, item: XmlElement): Note['pitch'] | undefined {
  const { leftOut, state } = draft;
  const written = readPitch(child(item, 'pitch'));
  if (!written) {
    if (child(item, 'unpitched')) leftOut.unpitched += 1;
    else {
      leftOut.unreadable.count += 1;
      leftOut.unreadable.first ??= placeText(draft, item);
    }
    return undefined;
  }
  if (!state.tablature.has(staffOf(item))) return written;
  leftOut.tablature += 1;
  return undefined;
}

function takeDirection(draft: Draft, item: XmlElement): void {
  const { section, tempo, isHeard, route, pedal, marks } = readDirection(item);
  const onset = placeOf(draft, item);
  draft.section ??= section;
  takeSound(draft, onset, { tempo, ...(isHeard ? { isHeard } : {}) }, route);
  if (pedal) draft.pedals.push({ onset, type: pedal });
  draft.marks.push(...marks.map((mark): Mark => ({ onset, staff: staffOf(item), ...mark })));
}

function takeSound(
  draft: Draft,
  onset: Ticks,
  tempo: Omit<TempoMark, 'onset'>,
  route: ReadMeasure['frame']['route'],
): void {
  if (tempo.tempo > 0) draft.tempos.push({ onset, ...tempo });
  if (route && Object.keys(route).length > 0)
    draft.frame = { ...draft.frame, route: { ...draft.frame.route, ...route } };
}

/** A length in divisions; a damaged file may say less than nothing, which is counted. */
function lengthOf(draft: Draft, item: XmlElement): number {
  const length = numberOf(item, 'duration') ?? 0;
  if (length >= 0) return length;
  const { lengths } = draft.leftOut;
  lengths.count += 1;
  lengths.first ??= placeText(draft, item);
  return 0;
}

const placeText = ({ number, index }: Draft, item: XmlElement): string =>
  `measure ${number ?? index + 1} (line ${item.line})`;

/** Grace notes that no note of their voice follows in the measure belong to the note before them. */
function withGracesAfter(notes: readonly Note[]): Note[] {
  if (!notes.some((n) => n.grace)) return [...notes];
  const voices = new Map<number, Note[]>();
  for (const note of notes)
    if (!note.grace) {
      const own = voices.get(note.voice);
      if (own) own.push(note);
      else voices.set(note.voice, [note]);
    }
  const place = new Map(notes.map((note, i) => [note, i]));
  return notes.map((note, i) => {
    const own = voices.get(note.voice) ?? [];
    if (!note.grace || own.some((n) => n.onset === note.onset && place.get(n)! > i)) return note;
    const before = own.filter((n) => n.onset < note.onset).at(-1);
    return before && !own.some((n) => n.onset >= note.onset)
      ? { ...note, onset: before.onset, grace: { ...note.grace, after: true } }
      : note;
  });
}

function readAttributes(element: XmlElement, state: State): void {
  const divisions = numberOf(element, 'divisions');
  if (divisions && divisions > 0) state.divisions = divisions;
  const time = readTime(child(element, 'time'));
  // A metre that is none, as of free music, is named all the same.
  state.hasTime ||= child(element, 'time') !== undefined;
  state.time = time ?? state.time;
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
  return { fifths, mode: modeNamed(mode ?? '') ?? 'major' };
}
