import { toMidi, type Pitch } from '../theory/pitch';
import type { Articulation, Measure, Note, Part, Score } from './score';
import type { Ticks } from './ticks';

/** What a hand strikes once: one written note, or several joined by ties. */
export interface SoundingNote {
  /** Id of the written note that is struck. */
  readonly id: string;
  /** Ids of all written notes it is made of, the struck one first. */
  readonly written: readonly string[];
  readonly onset: Ticks;
  readonly duration: Ticks;
  readonly pitch: Pitch;
  readonly midi: number;
  readonly staff: number;
  readonly voice: number;
  readonly articulations: readonly Articulation[];
  readonly slurStart: boolean;
  readonly slurStop: boolean;
  readonly finger?: number;
}

/** Whether a written note is struck where it stands: not what a tie leads on to, no grace note and no cue. */
export const isStruck = ({ tie, grace, cue }: Note): boolean =>
  tie !== 'stop' && tie !== 'both' && !grace && !cue;

const hasSlur = (note: Note, type: 'start' | 'stop'): boolean =>
  note.slurs?.some((s) => s.type === type) ?? false;

/** A score never changes: what its notes sound like is asked for by every stage, and found once. */
const sounding = new WeakMap<readonly Note[], readonly SoundingNote[]>();

/** Joins tied notes; grace notes and cue notes are left out. Sorted by onset, then from the lowest pitch up. */
export function soundingNotes(notes: readonly Note[]): readonly SoundingNote[] {
  const known = sounding.get(notes);
  if (known) return known;
  const made = joined(notes);
  sounding.set(notes, made);
  return made;
}

function joined(notes: readonly Note[]): SoundingNote[] {
  const result: { -readonly [K in keyof SoundingNote]: SoundingNote[K] }[] = [];
  /** What a tie leads on from, by its key and the tick at which it ends. */
  const open = new Map<number, (typeof result)[number]>();
  const placeOf = (midi: number, tick: Ticks): number => tick * 128 + midi;
  for (const note of [...notes].sort((a, b) => a.onset - b.onset)) {
    if (note.grace || note.cue) continue;
    const midi = toMidi(note.pitch);
    const place = placeOf(midi, note.onset);
    const tied = note.tie === 'stop' || note.tie === 'both' ? open.get(place) : undefined;
    if (tied) {
      open.delete(place);
      tied.written = [...tied.written, note.id];
      tied.duration += note.duration;
      tied.slurStart ||= hasSlur(note, 'start');
      tied.slurStop ||= hasSlur(note, 'stop');
    }
    const current = tied ?? {
      id: note.id,
      written: [note.id],
      onset: note.onset,
      duration: note.duration,
      pitch: note.pitch,
      midi,
      staff: note.staff,
      voice: note.voice,
      articulations: note.articulations ?? [],
      slurStart: hasSlur(note, 'start'),
      slurStop: hasSlur(note, 'stop'),
      ...(note.finger ? { finger: note.finger } : {}),
    };
    if (!tied) result.push(current);
    if (note.tie === 'start' || note.tie === 'both')
      open.set(placeOf(midi, note.onset + note.duration), current);
  }
  return result.sort((a, b) => a.onset - b.onset || a.midi - b.midi);
}

/** Share of the notes that may sound together in one line: a double stop here and there. */
const DOUBLED = 0.02;

/** Whether notes, in order of time, follow each other in one line. */
export function isOneLine(notes: readonly SoundingNote[]): boolean {
  let end = 0;
  let together = 0;
  for (const note of notes) {
    if (note.onset < end) together += 1;
    end = Math.max(end, note.onset + note.duration);
  }
  return notes.length > 0 && together <= DOUBLED * notes.length;
}

/** Notes by onset, in order of time. */
export function byOnset<T extends { onset: Ticks }>(notes: readonly T[]): { onset: Ticks; notes: T[] }[] {
  const groups = new Map<Ticks, T[]>();
  for (const note of notes) {
    const group = groups.get(note.onset);
    if (group) group.push(note);
    else groups.set(note.onset, [note]);
  }
  return [...groups].map(([onset, group]) => ({ onset, notes: group })).sort((a, b) => a.onset - b.onset);
}

/** Items by the measure in which they begin, in one pass; what lies beyond the last measure belongs to it. */
export function byMeasure<T extends { readonly onset: Ticks }>(
  measures: readonly Measure[],
  items: readonly T[],
): T[][] {
  const groups: T[][] = measures.map(() => []);
  let i = 0;
  for (const item of [...items].sort((a, b) => a.onset - b.onset)) {
    while (i < measures.length - 1 && item.onset >= measures[i + 1]!.start) i += 1;
    groups[i]?.push(item);
  }
  return groups;
}

/** The measure in which a tick falls (by binary search); the last one for anything beyond the end. */
export const measureAt = (measures: readonly Measure[], tick: Ticks): Measure =>
  measures[placeAt(measures, tick)]!;

/** Measures of which something lies between two ticks. */
export function measuresWithin(measures: readonly Measure[], from: Ticks, to: Ticks): readonly Measure[] {
  const touched: Measure[] = [];
  for (let i = placeAt(measures, from); i < measures.length && measures[i]!.start < to; i++)
    if (measures[i]!.start + measures[i]!.length > from) touched.push(measures[i]!);
  return touched;
}

function placeAt(measures: readonly Measure[], tick: Ticks): number {
  let low = 0;
  let high = measures.length - 1;
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if (measures[middle]!.start <= tick) low = middle;
    else high = middle - 1;
  }
  return low;
}

/** The lowest key that is down at a tick. `notes` in order of time. */
export const lowestAt = (notes: readonly SoundingNote[], tick: Ticks): number | undefined =>
  lowestOf(notes)(tick);

/** The same for many ticks of the same notes: only those are looked at that can still sound. */
export function lowestOf(notes: readonly SoundingNote[]): (tick: Ticks) => number | undefined {
  const longest = notes.reduce((most, n) => Math.max(most, n.duration), 0);
  return (tick) => {
    let [first, after] = [0, notes.length];
    while (first < after) {
      const middle = (first + after) >> 1;
      if (notes[middle]!.onset + longest > tick) after = middle;
      else first = middle + 1;
    }
    let lowest: number | undefined;
    for (let i = first; i < notes.length && notes[i]!.onset <= tick; i++) {
      const { onset, duration, midi } = notes[i]!;
      if (onset + duration > tick && (lowest === undefined || midi < lowest)) lowest = midi;
    }
    return lowest;
  };
}

/** A note moved by whole octaves. */
export const inOctave = <T extends Pick<SoundingNote, 'midi' | 'pitch'>>(note: T, octaves: number): T =>
  octaves === 0
    ? note
    : {
        ...note,
        midi: note.midi + 12 * octaves,
        pitch: { ...note.pitch, octave: note.pitch.octave + octaves },
      };

/** End of the last measure. */
export function endOfScore(score: Score): Ticks {
  const last = score.measures.at(-1);
  return last ? last.start + last.length : 0;
}

/** The part that a pianist plays from: the one chosen, else the first with two staves, else the first that has notes. */
export function keyboardPart(score: Score): Part {
  const part =
    score.parts.find((p) => p.role === 'keyboard') ??
    score.parts.find((p) => p.staves >= 2 && p.notes.length > 0) ??
    score.parts.find((p) => p.notes.length > 0) ??
    score.parts[0];
  if (!part) throw new Error('The score has no parts.');
  return part;
}
