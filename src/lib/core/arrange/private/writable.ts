/** How long a note may last so that a level can write it: its ties, its dots, its shortest value. */
import { beatLength, endOf, isCompound, measureLength, placeInMeasure } from '../../score/metre';
import { readableValues, writtenValue } from '../../score/notate';
import { measureAt } from '../../score/query';
import type { Measure, TimeSignature } from '../../score/score';
import { noteValue, type Ticks } from '../../score/ticks';
import { dotsAllowed, shortestValue, type LevelContract } from '../levels';

/** Whether a level may write a value in a metre. */
function isAllowedValue(value: Ticks, time: TimeSignature, contract: LevelContract): boolean {
  const written = writtenValue(value);
  if (!written || written.dots === 0) return true;
  const dots = dotsAllowed(contract, time);
  return dots === null || (written.dots === 1 && dots.includes(written.type));
}

/** Whether a level may tie a note of this length over the barline after `measure`. */
export const mayCrossBarline = (measure: Measure, duration: Ticks, contract: LevelContract): boolean =>
  contract.ties !== 'fill' || duration >= measureLength(measure.time);

/**
 * The latest end, at most `end`, at which a note from `onset` can be written within the level. Where nothing at all can be
 * written the first readable value stands, and the check says so.
 */
export function writableEnd(
  onset: Ticks,
  end: Ticks,
  measures: readonly Measure[],
  contract: LevelContract,
): Ticks {
  let at = onset;
  while (at < end) {
    const measure = measureAt(measures, at);
    const barline = endOf(measure);
    const to = Math.min(end, barline);
    const place = at - measure.start + measure.beginsAt;
    const values = readableValues(measure.time, place, place + to - at);
    // What fills a measure is read at every level, in every metre.
    const isFull = to - at === measureLength(measure.time);
    if (isFull && (measure.index === measures.length - 1 || to === end)) return to;
    if (isFull && mayCrossBarline(measure, end - onset, contract)) {
      at = barline;
      continue;
    }
    if (contract.ties === 'barline' && values.length > 1) return at + values[0]!;
    if (contract.ties === 'fill' && values.length > 1 && isOneValueShort(values, measure))
      return at + values[0]!;
    if (!values.every((v) => isAllowedValue(v, measure.time, contract))) {
      const shorter = to - shortestValue(contract, measure.time);
      return shorter > at ? writableEnd(onset, shorter, measures, contract) : to;
    }
    if (measure.index === measures.length - 1 || to === end) return to;
    if (!mayCrossBarline(measure, end - onset, contract)) return barline;
    at = barline;
  }
  return end;
}

/** A tie inside a measure fills a long note only where no single value could write it: three beats and a half, five beats. */
const isOneValueShort = (values: readonly Ticks[], measure: Measure): boolean =>
  writtenValue(values.reduce((a, b) => a + b, 0)) !== undefined &&
  values.reduce((a, b) => a + b, 0) < measureLength(measure.time);

/**
 * Whether a note belongs to a tuplet that the level reads: triplets that keep to their half beat, beat or two beats, or any
 * tuplet; its written value no shorter than the level's shortest.
 */
export function isAllowedTuplet(
  onset: Ticks,
  end: Ticks,
  measure: Measure,
  contract: LevelContract,
): boolean {
  if (contract.tuplets === 'none') return false;
  const shortest = shortestValue(contract, measure.time);
  const place = placeInMeasure(measure, onset);
  const length = end - onset;
  if (contract.tuplets === 'any') {
    const value = writtenValue(length);
    return !!value?.tuplet && value.dots === 0 && noteValue(value.type) >= shortest && end <= endOf(measure);
  }
  if (isCompound(measure.time)) return false;
  const beat = beatLength(measure.time);
  return [beat, 2 * beat, beat / 2].some((unit) => {
    const third = unit / 3;
    const inUnit = Math.floor(place / unit) === Math.floor((place + length - 1) / unit);
    const isThird = place % third === 0 && length % third === 0;
    const isBinary = place % (unit / 2) === 0 && length % (unit / 2) === 0;
    return unit / 2 >= shortest && inUnit && isThird && !isBinary;
  });
}

/**
 * An end that something else forces on a note, brought down to what a level can write: whole steps of its shortest value, or
 * the rest of a tuplet that it reads. The onset itself where nothing is left.
 */
export function forcedEnd(
  onset: Ticks,
  end: Ticks,
  measure: Measure,
  measures: readonly Measure[],
  contract: LevelContract,
): Ticks {
  const grid = shortestValue(contract, measure.time);
  if (grid === 1 || isAllowedTuplet(onset, end, measure, contract)) return end;
  const steps = Math.floor((end - onset) / grid);
  return steps === 0 ? onset : writableEnd(onset, onset + steps * grid, measures, contract);
}
