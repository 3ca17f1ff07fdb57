/** How long a note may last so that a level can write it: its ties, its dots, its shortest value. */
import { endOf, measureLength } from '../score/metre';
import { readableValues, writtenValue } from '../score/notate';
import { measureAt } from '../score/query';
import type { Measure, TimeSignature } from '../score/score';
import type { Ticks } from '../score/ticks';
import { dotsAllowed, shortestValue, type LevelContract } from './levels';

/** Whether a level may write a value in a metre. */
export function isAllowedValue(value: Ticks, time: TimeSignature, contract: LevelContract): boolean {
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
