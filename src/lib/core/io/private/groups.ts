/**
 * How a source groups the notes of measures that do not fall into equal beats: five, seven, eight or eleven eighths are beamed, or spaced, in twos
 * and threes. A beam begins with a group and never goes on over the beginning of one.
 */
import { groupingsOf, isOdd, measureLength } from '../../score/metre';
import type { Measure, TimeSignature } from '../../score/score';
import type { Ticks } from '../../score/ticks';

/** A place at which a beam begins, or goes on, from the start of its measure. */
export interface BeamPlace {
  readonly at: Ticks;
  readonly begins: boolean;
}

/** Points of a grouping for a place: a beam that begins with a group, one that goes on over its beginning, one that begins elsewhere. */
const BEGINS = 1;
const CROSSES = -1.5;
const ELSEWHERE = -0.25;
/** Places that must speak for a grouping, and by how much it must be the best. */
const FEWEST = 2;
const CLEARLY = 0.5;

/** The groups of a metre that beams speak for, in notes of its lower number; undefined where they do not. */
function heardGroups(time: TimeSignature, places: readonly BeamPlace[]): readonly number[] | undefined {
  if (!isOdd(time) || places.length < FEWEST) return undefined;
  const pulse = measureLength(time) / time.beats;
  const count = new Map<number, { begins: number; goesOn: number }>();
  for (const { at, begins } of places) {
    const place = Math.round((at / pulse) * 2) / 2;
    const known = count.get(place) ?? { begins: 0, goesOn: 0 };
    count.set(
      place,
      begins ? { ...known, begins: known.begins + 1 } : { ...known, goesOn: known.goesOn + 1 },
    );
  }
  const points = (groups: readonly number[]): number => {
    const starts = new Set<number>();
    let at = 0;
    for (const group of groups) {
      starts.add(at);
      at += group;
    }
    let sum = 0;
    for (const [place, { begins, goesOn }] of count)
      sum += starts.has(place) ? BEGINS * begins + CROSSES * goesOn : ELSEWHERE * begins;
    return sum;
  };
  const [best, next] = groupingsOf(time.beats)
    .map((groups) => ({ groups, points: points(groups) }))
    .sort((a, b) => b.points - a.points);
  return best && best.points > 0 && best.points - (next?.points ?? 0) >= CLEARLY ? best.groups : undefined;
}

/** Measures with the groups that their beams speak for: one grouping for all measures of a metre. `beamed` is by measure. */
export function withHeardGroups(
  measures: readonly Measure[],
  beamed: readonly (readonly BeamPlace[])[],
): Measure[] {
  const byTime = new Map<string, { time: TimeSignature; places: BeamPlace[] }>();
  const nameOf = ({ beats, beatType }: TimeSignature): string => `${beats}/${beatType}`;
  measures.forEach(({ time, beginsAt }, i) => {
    if (!isOdd(time)) return;
    const known = byTime.get(nameOf(time)) ?? { time, places: [] };
    known.places.push(...(beamed[i] ?? []).map(({ at, begins }) => ({ at: at + beginsAt, begins })));
    byTime.set(nameOf(time), known);
  });
  const groups = new Map(
    [...byTime].map(([name, { time, places }]) => [name, heardGroups(time, places)] as const),
  );
  return measures.map((measure) => {
    const own = groups.get(nameOf(measure.time));
    return own && !measure.time.groups ? { ...measure, time: { ...measure.time, groups: own } } : measure;
  });
}
