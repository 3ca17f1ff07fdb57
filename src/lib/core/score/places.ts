/** A stretch of measures by their places in a score, which may begin and end at a beat: "measure 4 beat 3 to measure 8". */
import { beatLength, endOf, placeInMeasure } from './metre';
import { measuresText, measureText } from './measureText';
import type { Measure } from './score';
import type { Ticks } from './ticks';

/** Beats are counted as they are counted aloud, from 1; in a pickup they go on from where its measure would have begun. */
export interface Places {
  /** First and last measure, by index. */
  readonly from: number;
  readonly to: number;
  /** The beat of the first measure on which it begins; without it the measure's first. */
  readonly fromBeat?: number | undefined;
  /** The last beat of the last measure that belongs to it; without it the measure's last. */
  readonly toBeat?: number | undefined;
}

/** The first and the last beat that a measure has. */
export function beatsIn({
  time,
  beginsAt,
  length,
}: Pick<Measure, 'time' | 'beginsAt' | 'length'>): readonly [number, number] {
  const beat = beatLength(time);
  const first = Math.floor(beginsAt / beat) + 1;
  return [first, Math.max(first, Math.ceil((beginsAt + length) / beat))];
}

/** Where a beat of a measure begins, in the score; never outside the measure. */
const onsetOf = (measure: Measure, beat: number): Ticks =>
  Math.min(
    endOf(measure),
    Math.max(measure.start, measure.start + (beat - 1) * beatLength(measure.time) - measure.beginsAt),
  );

/** The beat of a measure in which a tick of the score lies. */
export const beatAt = (measure: Measure, tick: Ticks): number =>
  Math.floor(placeInMeasure(measure, tick) / beatLength(measure.time)) + 1;

/** Where places begin and end in a score. */
export function ticksOf(
  measures: readonly Measure[],
  { from, to, fromBeat, toBeat }: Places,
): { readonly start: Ticks; readonly end: Ticks } {
  const [first, last] = [measures[from]!, measures[to]!];
  return {
    start: fromBeat === undefined ? first.start : onsetOf(first, fromBeat),
    end: toBeat === undefined ? endOf(last) : onsetOf(last, toBeat + 1),
  };
}

/** Where they begin within their first measure, and end within their last, in ticks. */
export function insideOf(
  measures: readonly Measure[],
  places: Places,
): { readonly skips: Ticks; readonly until: Ticks } {
  const { start, end } = ticksOf(measures, places);
  return { skips: start - measures[places.from]!.start, until: end - measures[places.to]!.start };
}

/** Whether some places hold all of others. */
export const covers = (whole: Places, part: Places): boolean =>
  compareEdges([whole.from, whole.fromBeat ?? 0], [part.from, part.fromBeat ?? 0]) <= 0 &&
  compareEdges([whole.to, whole.toBeat ?? Infinity], [part.to, part.toBeat ?? Infinity]) >= 0;

/** Whether one stretch begins where the other ends. */
export const follows = (before: Places, after: Places): boolean =>
  before.toBeat === undefined
    ? after.fromBeat === undefined && after.from === before.to + 1
    : after.from === before.to && after.fromBeat === before.toBeat + 1;

/** Orders edges, each a measure and a beat. */
export const compareEdges = (
  a: readonly [measure: number, beat: number],
  b: readonly [measure: number, beat: number],
): number => a[0] - b[0] || (a[1] === b[1] ? 0 : a[1] - b[1]);

/** Orders places as the music has them. */
export const inMusic = (a: Places, b: Places): number =>
  compareEdges([a.from, a.fromBeat ?? 0], [b.from, b.fromBeat ?? 0]);

/** "measures 1 to 4", "measure 4 beat 3 to measure 8", "measure 4, beats 1 to 2", from printed numbers. */
export function placesText(numbers: readonly string[], { from, to, fromBeat, toBeat }: Places): string {
  if (fromBeat === undefined && toBeat === undefined) return measuresText(numbers, from, to);
  const edge = (measure: number, beat: number | undefined): string =>
    `${measureText(numbers[measure] ?? '')}${beat === undefined ? '' : ` beat ${beat}`}`;
  if (from !== to) return `${edge(from, fromBeat)} to ${edge(to, toBeat)}`;
  if (fromBeat === undefined) return `${edge(from, undefined)} up to beat ${toBeat}`;
  if (toBeat === undefined) return `${edge(from, undefined)} from beat ${fromBeat}`;
  return fromBeat === toBeat
    ? edge(from, fromBeat)
    : `${edge(from, undefined)}, beats ${fromBeat} to ${toBeat}`;
}
