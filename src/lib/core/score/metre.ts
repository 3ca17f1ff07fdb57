import type { Key } from '../theory/key';
import type { Measure, TimeSignature } from './score';
import { noteValue, type Ticks } from './ticks';

/** Compound metres (6/8, 9/8, 12/8 …) group their pulses in threes; 3/8 is counted in three and is simple. */
export const isCompound = (time: TimeSignature): boolean =>
  time.beats > 3 && time.beats % 3 === 0 && time.beatType >= 8;

/** Length of a full measure. */
export const measureLength = (time: TimeSignature): Ticks => time.beats * noteValue(time.beatType);

/** Length of the beat that is felt and counted: a dotted value in compound metre. */
export const beatLength = (time: TimeSignature): Ticks =>
  isCompound(time) ? 3 * noteValue(time.beatType) : noteValue(time.beatType);

/** What a beat is divided into: a third of it in compound metre, half of it in simple; an eighth-note beat stays whole. */
export const pulseLength = (time: TimeSignature): Ticks =>
  isCompound(time)
    ? noteValue(time.beatType)
    : time.beatType >= 8
      ? noteValue(time.beatType)
      : noteValue(time.beatType) / 2;

/** Whether a metre has groups that its beats alone do not say. */
export const isOdd = ({ beats, beatType }: TimeSignature): boolean =>
  beatType >= 8 && [5, 7, 8, 10, 11, 13].includes(beats);

/** All ways to fill a number of notes with twos and threes. */
export function groupingsOf(count: number): number[][] {
  if (count === 0) return [[]];
  return [2, 3].flatMap((first) =>
    count < first ? [] : groupingsOf(count - first).map((rest) => [first, ...rest]),
  );
}

/** The groups of the measure as they are read: of the source, else the usual ones; undefined where equal beats say all. */
export const groupsOf = (time: TimeSignature): readonly number[] | undefined =>
  time.groups ?? usualGroups(time);

/** The groups of a measure that does not fall into halves, where nothing in the source says them. */
function usualGroups({ beats, beatType }: TimeSignature): readonly number[] | undefined {
  if (beats === 5) return [3, 2];
  if (beats === 7) return beatType >= 8 ? [2, 2, 3] : [4, 3];
  return beats === 8 && beatType >= 8 ? [3, 3, 2] : undefined;
}

/** Places in a full measure at which its groups begin, the first left out; none where it falls into equal beats alone. */
export function innerGroups(time: TimeSignature): Ticks[] {
  const groups = groupsOf(time) ?? [];
  let at = 0;
  return groups.slice(0, -1).map((group) => (at += group) * noteValue(time.beatType));
}

/** Onsets at which a measure or a group of its beats begins: its half where that is even, the second group of five or seven beats. */
export function groupStarts(measures: readonly Measure[]): Set<Ticks> {
  return new Set(
    measures.flatMap(({ start, time, length, beginsAt }) => {
      const full = measureLength(time);
      const beats = full / beatLength(time);
      const odd = innerGroups(time);
      const inside = odd.length > 0 ? odd : beats % 2 === 0 ? [full / 2] : [];
      return [
        start,
        ...inside.map((place) => start + place - beginsAt).filter((at) => at > start && at < start + length),
      ];
    }),
  );
}

/** A tick of the score as a place in its full measure; a quarter pickup in 4/4 begins at three quarters. */
export const placeInMeasure = (measure: Measure, tick: Ticks): Ticks =>
  tick - measure.start + measure.beginsAt;

/** The key that holds at a tick of a measure. */
export const keyAt = (measure: Measure, tick: Ticks): Key =>
  measure.changes?.findLast((c) => c.key && c.onset <= tick)?.key ?? measure.key;

export const endOf = (measure: Measure): Ticks => measure.start + measure.length;

/**
 * How strong a place in a measure is, for choosing what to keep: 4 the first beat, 3 the middle of an even measure,
 * 2 another beat, 1 the half of a simple beat or a pulse of a compound one, 0 anything finer.
 */
export function metricalStrength(time: TimeSignature, place: Ticks): 0 | 1 | 2 | 3 | 4 {
  const beat = beatLength(time);
  const full = measureLength(time);
  if (place % full === 0) return 4;
  const beats = full / beat;
  const odd = innerGroups(time);
  if (odd.length > 0 && odd.includes(place)) return 3;
  if (odd.length === 0 && beats % 2 === 0 && beats > 2 && place === full / 2) return 3;
  if (place % beat === 0) return 2;
  const pulse = isCompound(time) ? beat / 3 : beat / 2;
  return place % pulse === 0 ? 1 : 0;
}

/** The lengths of groups that are written as "2+2+3", in notes of the metre's lower number. */
export const groupLengths = (text: string): readonly number[] => text.split('+').map(Number);
