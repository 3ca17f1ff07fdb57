/** When the onsets of a pass came, against the player's own tempo around them. */
import { TICKS_PER_QUARTER } from '../score/ticks';
import type { Expectation } from './expectation';
import type { Pass } from './private/passes';

export interface TimedOnset {
  readonly onset: number;
  /** Seconds after the player's own tempo; negative before it. Undefined where too little stands around it. */
  readonly late?: number;
  /** Seconds that the player stood still before it; 0 where they did not. */
  readonly stood: number;
  /** Seconds for a quarter around it. */
  readonly pace?: number;
}

/** A pause is longer than the step should be by so many seconds, and by this share of a quarter. */
const [STOOD, STOOD_SHARE] = [0.45, 0.8];
/** Quarters on either side that the tempo at an onset is taken from, and the fewest onsets there. */
const AROUND = 3;
const FEWEST = 3;

/** The onsets of a pass that were struck, in order. `usual`: seconds for a quarter where nothing else is known. */
export function timingOf(
  { onsets }: Pick<Expectation, 'onsets'>,
  pass: Pass,
  usual: number,
): readonly TimedOnset[] {
  const points = [...pass.struckAt]
    .sort((a, b) => a[0] - b[0])
    .map(([onset, time]) => ({ onset, time, quarters: onsets[onset]!.time / TICKS_PER_QUARTER }));
  const pace = middlePace(points) ?? usual;
  const stood = points.map((point, i) => {
    const before = points[i - 1];
    if (!before) return 0;
    const more = point.time - before.time - (point.quarters - before.quarters) * pace;
    return more > STOOD + STOOD_SHARE * pace ? more : 0;
  });
  return points.map((point, i): TimedOnset => {
    // Across a pause there is no tempo.
    let [first, last] = [i, i];
    while (first > 0 && stood[first] === 0 && point.quarters - points[first - 1]!.quarters <= AROUND)
      first -= 1;
    while (
      last + 1 < points.length &&
      stood[last + 1] === 0 &&
      points[last + 1]!.quarters - point.quarters <= AROUND
    )
      last += 1;
    const others = points.slice(first, last + 1).filter((p) => p !== point);
    const line = others.length >= FEWEST ? lineThrough(others) : undefined;
    return {
      onset: point.onset,
      stood: stood[i]!,
      ...(line && line.slope > 0
        ? { late: point.time - (line.at + line.slope * point.quarters), pace: line.slope }
        : {}),
    };
  });
}

interface Point {
  readonly time: number;
  readonly quarters: number;
}

function middlePace(points: readonly Point[]): number | undefined {
  const paces = points
    .slice(1)
    .map((p, i) => (p.time - points[i]!.time) / (p.quarters - points[i]!.quarters))
    .filter((pace) => Number.isFinite(pace) && pace > 0)
    .sort((a, b) => a - b);
  return paces[paces.length >> 1];
}

/** The straight line of least squares: time = at + slope · quarters. */
function lineThrough(points: readonly Point[]): { readonly at: number; readonly slope: number } | undefined {
  const n = points.length;
  const [mx, my] = [
    points.reduce((s, p) => s + p.quarters, 0) / n,
    points.reduce((s, p) => s + p.time, 0) / n,
  ];
  const across = points.reduce((s, p) => s + (p.quarters - mx) ** 2, 0);
  if (across === 0) return undefined;
  const slope = points.reduce((s, p) => s + (p.quarters - mx) * (p.time - my), 0) / across;
  return { at: my - slope * mx, slope };
}
