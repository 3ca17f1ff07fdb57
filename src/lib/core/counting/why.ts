/** Why a measure is counted as it is, in a sentence: its beat, how fine it needs to be, where it begins. */
import { beatLength, groupsOf, isCompound, isOdd } from '../score/metre';
import { writtenValue } from '../score/notate';
import type { Measure } from '../score/score';
import type { Count, CountingOptions } from './count';
import { SCHOOLS } from './schools';

const VALUES: Readonly<Record<number, string>> = {
  1: 'whole notes',
  2: 'halves',
  4: 'quarters',
  8: 'eighths',
  16: 'sixteenths',
  32: 'thirty-seconds',
};

/** One sentence about the counts of a measure. */
export function whyCounted(
  measure: Measure,
  counts: readonly Count[],
  { school, cutTime }: CountingOptions,
): string {
  const { time } = measure;
  const inQuarters = cutTime === 'quarters' && time.beats === 2 && time.beatType === 2;
  const beat = inQuarters ? beatLength({ beats: 4, beatType: 4 }) : beatLength(time);
  const unit = isCompound(time) && SCHOOLS[school].pulses ? beat / 3 : beat;
  const value = writtenValue(unit);
  const groups = isOdd(time) ? groupsOf(time) : undefined;
  const named = groups
    ? `groups of ${groups.join('+')} ${VALUES[time.beatType] ?? 'beats'}`
    : `${value?.dots ? 'dotted ' : ''}${VALUES[value?.type ?? 4] ?? 'beats'}`;
  const places = counts.map((c) => (c.at + measure.beginsAt) % unit).filter((p) => p > 0);
  const finest = Math.min(...places.map((p) => commonPart(p, unit)));
  const fine =
    places.length === 0
      ? 'nothing here is shorter'
      : `${isThird(finest, unit) ? 'triplets' : (VALUES[writtenValue(finest)?.type ?? 0] ?? 'finer values')} in between, as fine as this measure needs`;
  const begins = measure.beginsAt > 0 ? '; it begins in the middle of a measure, so the count does too' : '';
  return `Counted in ${named}, ${fine}${begins}.`;
}

/** Triplets are thirds of a beat that is no compound one. */
const isThird = (length: number, unit: number): boolean =>
  Number.isInteger(unit / length) && writtenValue(length)?.tuplet !== undefined;

/** The greatest length of which both are multiples. */
function commonPart(a: number, b: number): number {
  return b === 0 ? a : commonPart(b, a % b);
}
