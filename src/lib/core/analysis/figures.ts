/** What a hand does in a measure, by its notes alone: the figures by which a kind of music is seen. */
import { beatLength, placeInMeasure, pulseLength } from '../score/metre';
import { byMeasure, byOnset, type SoundingNote } from '../score/query';
import type { Measure } from '../score/score';

/** Whether a hand's notes of a full measure (never none) have a figure. */
export type InMeasure = (measure: Measure, notes: readonly SoundingNote[]) => boolean;

/** Share of the full measures with notes in which something holds. */
export function shareOf(
  measures: readonly Measure[],
  notes: readonly SoundingNote[],
  holds: InMeasure,
): number {
  const full = byMeasure(measures, notes).flatMap((own, i) =>
    own.length > 0 && measures[i]!.beginsAt === 0 ? [holds(measures[i]!, own)] : [],
  );
  return full.length === 0 ? 0 : full.filter(Boolean).length / full.length;
}

/** A step, and the widest interval within which a line walks, in semitones. */
const STEP = 2;
const WALKS = 5;

/** Intervals from stroke to stroke, between the lowest keys, in semitones. */
const intervalsOf = (notes: readonly SoundingNote[]): readonly number[] => {
  const line = byOnset(notes).map((s) => Math.min(...s.notes.map((n) => n.midi)));
  return line.slice(1).map((midi, i) => Math.abs(midi - line[i]!));
};

const shareWhere = <T>(list: readonly T[], holds: (item: T) => boolean): number =>
  list.length === 0 ? 0 : list.filter(holds).length / list.length;

/** Each stroke is one key, or one in octaves. */
const isLine = (notes: readonly SoundingNote[]): boolean =>
  byOnset(notes).every((s) => new Set(s.notes.map((n) => n.midi % 12)).size === 1);

/** Strokes at even distances that fill the measure from its first beat; `least` to a beat. */
function isEven(measure: Measure, notes: readonly SoundingNote[], least: number): boolean {
  const onsets = byOnset(notes).map((s) => placeInMeasure(measure, s.onset));
  const gap = measure.length / onsets.length;
  return (
    onsets.length >= least * (measure.length / beatLength(measure.time)) &&
    onsets.every((onset, i) => Math.abs(onset - i * gap) < 1)
  );
}

/** A single low note (or an octave) on the first beat, and chords above it after it. */
export const isLowThenChord: InMeasure = (measure, notes) => {
  const [first, ...rest] = byOnset(notes);
  if (!first || rest.length === 0 || placeInMeasure(measure, first.onset) !== 0) return false;
  const low = Math.max(...first.notes.map((n) => n.midi));
  const isSingle = first.notes.every((n) => (low - n.midi) % 12 === 0);
  const chords = rest.filter((s) => s.notes.length > 1 && s.notes.every((n) => n.midi > low));
  return isSingle && chords.length > 0 && chords.length >= rest.length / 2;
};

/** Single notes one after another over at least a fifth. */
export const isBroken: InMeasure = (_, notes) => {
  const strokes = byOnset(notes);
  const keys = notes.map((n) => n.midi);
  return (
    strokes.length >= 3 &&
    strokes.filter((s) => s.notes.length === 1).length >= strokes.length - 1 &&
    Math.max(...keys) - Math.min(...keys) >= 7
  );
};

/** More than half of it goes in pulses. */
export const isInPulses: InMeasure = (measure, notes) =>
  notes.filter((n) => n.duration <= pulseLength(measure.time)).length * pulseLength(measure.time) * 2 >
  measure.length;

/** One note on each beat or half beat, from key to key near by, that is no chord turned round and round. */
export const isWalking: InMeasure = (measure, notes) => {
  if (!isLine(notes) || !isEven(measure, notes, 1)) return false;
  const intervals = intervalsOf(notes);
  const tones = new Set(notes.map((n) => n.midi % 12)).size;
  return (
    tones >= Math.min(4, intervals.length + 1) &&
    intervals.length >= 2 &&
    intervals.some((i) => i > 0 && i <= STEP) &&
    shareWhere(intervals, (i) => i > 0 && i <= WALKS) >= 0.75
  );
};

/** Strikes at these eighths of the measure and none of those. */
const strikesAt =
  (at: readonly number[], never: readonly number[]): InMeasure =>
  (measure, notes) => {
    const places = new Set(
      byOnset(notes).map((s) => (8 * placeInMeasure(measure, s.onset)) / measure.length),
    );
    return at.every((p) => places.has(p)) && never.every((p) => !places.has(p));
  };

/** A dotted beat, a short one, two even ones. */
export const isTango = strikesAt([0, 3, 4, 6], [1, 2, 5, 7]);

/** Both halves pushed by the eighth before them. */
export const isBossa = strikesAt([0, 3, 4, 7], [1, 2, 5]);

/** A chord broken quickly, note by note. */
export const isQuicklyBroken: InMeasure = (measure, notes) => {
  const strokes = byOnset(notes);
  const beats = measure.length / beatLength(measure.time);
  return (
    strokes.length >= 2 * beats &&
    strokes.filter((s) => s.notes.length === 1).length >= strokes.length - 1 &&
    shareWhere(intervalsOf(notes), (i) => i > STEP) >= 0.7
  );
};

/** A scale that runs: three notes or more to a beat on its way, mostly by step. */
export const isRunning: InMeasure = (measure, notes) => {
  const quick = notes.filter((n) => n.duration <= beatLength(measure.time) / 3);
  return (
    isLine(notes) && quick.length >= 6 && shareWhere(intervalsOf(notes), (i) => i > 0 && i <= STEP) >= 0.7
  );
};

/** A line that sings: from key to key near by, and by step as well. */
export const isMelodic: InMeasure = (_, notes) => {
  const intervals = intervalsOf(notes);
  const count = (holds: (i: number) => boolean): number => intervals.filter(holds).length;
  return (
    isLine(notes) &&
    count((i) => i > 4) <= 0.4 * intervals.length &&
    count((i) => i <= STEP) >= 0.3 * intervals.length
  );
};

/** A line of three notes or more that goes mostly by step. */
export const isStepping: InMeasure = (_, notes) => {
  const intervals = intervalsOf(notes);
  return isLine(notes) && intervals.length >= 2 && shareWhere(intervals, (i) => i > 0 && i <= STEP) >= 0.6;
};

/**
 * Whether a figure comes again measure by measure, low down: strokes at uneven distances, or even ones that repeat a key or step on the
 * same way up and down. `share` of the full measures have the same.
 */
export function isFigureThroughout(
  measures: readonly Measure[],
  notes: readonly SoundingNote[],
  share: number,
): boolean {
  const rhythms = byMeasure(measures, notes).flatMap((own, i) =>
    own.length > 0 && measures[i]!.beginsAt === 0
      ? [
          byOnset(own)
            .map((s) => placeInMeasure(measures[i]!, s.onset))
            .join(' '),
        ]
      : [],
  );
  const counts = new Map<string, number>();
  for (const rhythm of rhythms) counts.set(rhythm, (counts.get(rhythm) ?? 0) + 1);
  const [usual, count] = [...counts].sort((a, b) => b[1] - a[1])[0] ?? ['', 0];
  const onsets = usual.split(' ').map(Number);
  const gaps = new Set(onsets.slice(1).map((onset, i) => onset - onsets[i]!));
  return (
    rhythms.length >= 4 &&
    count >= share * rhythms.length &&
    onsets.length >= 5 &&
    (gaps.size > 1 || comesAgain(measures, notes, share)) &&
    shareWhere(notes, (n) => n.midi <= HIGHEST_OF_RIFF) >= 0.8
  );
}

/** Whether a line takes the same way up and down in `share` of its full measures, and repeats keys or steps on it: no broken chord does. */
function comesAgain(measures: readonly Measure[], notes: readonly SoundingNote[], share: number): boolean {
  const moves = byMeasure(measures, notes).flatMap((own, i) => {
    if (own.length === 0 || measures[i]!.beginsAt > 0) return [];
    const line = byOnset(own).map((s) => Math.min(...s.notes.map((n) => n.midi)));
    return [line.slice(1).map((midi, k) => midi - line[k]!)];
  });
  const byWay = new Map<string, number[][]>();
  for (const own of moves) {
    const way = own.map(Math.sign).join(' ');
    byWay.set(way, [...(byWay.get(way) ?? []), own]);
  }
  const usual = [...byWay.values()].sort((a, b) => b.length - a.length)[0] ?? [];
  return (
    usual.length >= share * moves.length &&
    shareWhere(usual.flat(), (by) => Math.abs(by) <= STEP) >= NEAR_IN_RIFF
  );
}

/** Share of the intervals of a riff that repeat a key or step. */
const NEAR_IN_RIFF = 0.25;
/** C4: above it a figure is no riff of the left hand. Fewest notes of one in a measure, and how many measures back it may come from. */
const HIGHEST_OF_RIFF = 60;
const FEWEST_OF_RIFF = 4;
const RIFF_LAGS = [1, 2] as const;

/** Measures (by index) whose low line, given by measure, is the same figure at whatever pitch one or two measures before or after. */
export function riffMeasures(
  measures: readonly Measure[],
  groups: readonly (readonly SoundingNote[])[],
): ReadonlySet<number> {
  const shapes = groups.map((own, i) =>
    own.length < FEWEST_OF_RIFF || own.some((n) => n.midi > HIGHEST_OF_RIFF)
      ? undefined
      : own.map((n) => `${n.onset - measures[i]!.start}:${n.midi - own[0]!.midi}`).join(' '),
  );
  const isSame = (i: number, j: number): boolean => shapes[i] !== undefined && shapes[i] === shapes[j];
  return new Set(
    shapes.flatMap((_, i) => (RIFF_LAGS.some((lag) => isSame(i, i - lag) || isSame(i, i + lag)) ? [i] : [])),
  );
}
