/**
 * From what sounds to what is written: long notes are cut at barlines and at the beats a reader must see, the pieces
 * tied; gaps become rests that never hide a beat.
 */
import { measuresWithin } from './query';
import { beatLength, innerGroups, isCompound, measureLength } from './metre';
import type { Measure, Note, TimeSignature, Tuplet } from './score';
import { noteValue, type Ticks } from './ticks';

/** A value that one notehead or rest can show. `type` 4 is a quarter note. */
export interface WrittenValue {
  readonly type: number;
  readonly dots: 0 | 1 | 2;
  readonly tuplet?: Tuplet;
}

const TYPES = [0.5, 1, 2, 4, 8, 16, 32, 64, 128, 256] as const;

const PLAIN_VALUES: ReadonlyMap<Ticks, WrittenValue> = new Map(
  TYPES.flatMap((type) =>
    ([0, 1, 2] as const).map((dots): [Ticks, WrittenValue] => [
      noteValue(type) * (2 - 1 / 2 ** dots),
      { type, dots },
    ]),
  ),
);

const USUAL_TUPLETS: readonly Tuplet[] = [
  { actual: 3, normal: 2 },
  { actual: 5, normal: 4 },
  { actual: 7, normal: 4 },
  { actual: 2, normal: 3 },
  { actual: 9, normal: 8 },
];

/** The note value of a duration, in the given tuplet or, failing a plain value, in the first usual one that fits. */
export function writtenValue(duration: Ticks, tuplet?: Tuplet): WrittenValue | undefined {
  const inTuplet = (t: Tuplet): WrittenValue | undefined => {
    const value = PLAIN_VALUES.get((duration * t.actual) / t.normal);
    return value && { ...value, tuplet: t };
  };
  if (tuplet) return inTuplet(tuplet) ?? writtenValue(duration);
  const plain = PLAIN_VALUES.get(duration);
  if (plain) return plain;
  for (const candidate of USUAL_TUPLETS) {
    const value = inTuplet(candidate);
    if (value && value.dots === 0) return value;
  }
  return undefined;
}

/**
 * Cuts a stretch of one full measure (places, not score ticks) into values a player reads at sight.
 * `rest` forbids what is only usual for notes: syncopations and dotted rests in simple metre.
 */
export function readableValues(time: TimeSignature, from: Ticks, to: Ticks, rest = false): Ticks[] {
  const duration = to - from;
  if (duration <= 0) return [];
  if (isReadable(time, from, duration, rest)) return [duration];
  const cut = strongestPlaceBetween(time, from, to);
  if (cut === undefined) return [duration]; // finer than any beat: a tuplet, written as it is
  return [...readableValues(time, from, cut, rest), ...readableValues(time, cut, to, rest)];
}

function isReadable(time: TimeSignature, from: Ticks, duration: Ticks, rest: boolean): boolean {
  const value = writtenValue(duration);
  const beat = beatLength(time);
  const to = from + duration;
  // Seven of a kind would be a note with two dots: their groups are tied.
  if (!value || (value.dots > 1 && duration === measureLength(time))) return false;
  if (from % beat === 0 && to % beat === 0 && duration === measureLength(time)) return true;
  const crossesBeat = Math.floor(from / beat) !== Math.floor((to - 1) / beat);
  if (!crossesBeat) return !(rest && value.dots > 0 && !isCompound(time));
  if (isCompound(time)) return from % beat === 0 && to % beat === 0 && !value.tuplet;
  const middle = measureLength(time) / 2;
  const hasMiddle = time.beats === 4;
  if (rest) return value.dots === 0 && from % duration === 0;
  if (from % beat === 0) {
    // 4/4 shows its middle unless the note starts on beat one, is the half note of short-long-short, or fills the measure
    // after its first beat.
    const full = measureLength(time);
    return !(hasMiddle && from > 0 && from < middle && to > middle && duration !== 2 * beat && to !== full);
  }
  // Off the beat only the plain syncopation (an eighth, a quarter, an eighth) may hide a beat, never the middle.
  const halfBeat = beat / 2;
  const crossesMiddle = hasMiddle && from < middle && to > middle;
  return from % halfBeat === 0 && duration === beat && !crossesMiddle;
}

function strongestPlaceBetween(time: TimeSignature, from: Ticks, to: Ticks): Ticks | undefined {
  const full = measureLength(time);
  const beat = beatLength(time);
  const pulse = isCompound(time) ? beat / 3 : beat / 2;
  if (Math.floor(from / full) === Math.floor((to - 1) / full)) {
    const inside = innerGroups(time)
      .map((place) => Math.floor(from / full) * full + place)
      .filter((at) => from < at && at < to);
    const isPlain = (length: Ticks): boolean => (PLAIN_VALUES.get(length)?.dots ?? 2) < 2;
    const inGroup = inside.find((at) => isPlain(at - from) && isPlain(to - at)) ?? inside[0];
    if (inGroup !== undefined) return inGroup;
  }
  const grids = [full, time.beats === 4 ? full / 2 : beat, beat, pulse, pulse / 2, pulse / 4, pulse / 8];
  for (const grid of grids) {
    const first = (Math.floor(from / grid) + 1) * grid;
    if (first < to) return first;
  }
  return undefined;
}

/**
 * Writes sounding notes into measures: each is cut where it must be and its pieces tied. The first piece keeps the
 * note's id, the following ones are `id.1`, `id.2` …; a note already short and readable stays as it is.
 */
export function notate(measures: readonly Measure[], notes: readonly Note[]): Note[] {
  return notes.flatMap((note) => {
    if (note.grace) return [note];
    const end = note.onset + note.duration;
    const pieces = measuresWithin(measures, note.onset, end).flatMap((m) => {
      const from = Math.max(note.onset, m.start);
      const to = Math.min(end, m.start + m.length);
      const place = from - m.start + m.beginsAt;
      let at = from;
      const values = note.tuplet ? [to - from] : readableValues(m.time, place, place + to - from);
      return values.map((duration) => ({ onset: (at += duration) - duration, duration }));
    });
    return pieces.map((piece, i): Note => {
      const last = i === pieces.length - 1;
      const tie = pieces.length === 1 ? undefined : i === 0 ? 'start' : last ? 'stop' : 'both';
      const { tie: _tie, lyrics, finger, articulations, slurs, tuplet, ...rest } = note;
      const joined = slurs?.filter((s) => (s.type === 'start' ? i === 0 : last));
      return {
        ...rest,
        ...piece,
        id: i === 0 ? note.id : `${note.id}.${i}`,
        ...(tie ? { tie } : {}),
        ...(tuplet && pieces.length === 1 ? { tuplet } : {}),
        ...(i === 0 && lyrics ? { lyrics } : {}),
        ...(i === 0 && finger ? { finger } : {}),
        ...(i === 0 && articulations ? { articulations } : {}),
        ...(joined?.length ? { slurs: joined } : {}),
      };
    });
  });
}
