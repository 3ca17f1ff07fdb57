/** A take as its passes: stretches in which the player goes on without going back or leaping ahead. */
import { TICKS_PER_QUARTER } from '../../score/ticks';
import type { Expectation } from '../expectation';
import type { Keystroke } from '../keystroke';
import { PAUSE, type PaceAt } from './follow';

export interface Pass {
  /** Keystrokes of the pass, by index, and the onset that each belongs to. */
  readonly strokes: readonly number[];
  readonly path: readonly number[];
  /** First and last onset that it reaches. */
  readonly from: number;
  readonly to: number;
  /** When an onset is struck, in seconds, where a key of it was. */
  readonly struckAt: ReadonlyMap<number, number>;
}

/** Onsets by which a player goes back or ahead without that being a new pass: neighbours in the other order, notes passed over. */
const [BACK, AHEAD] = [1, 4];

/** Onsets at either end of the music that may be missing from a take that is whole. */
const BESIDE_END = 2;

/** Cuts what was followed into passes. `isOver`: nothing more will be played. */
export function passesOf(
  { onsets }: Expectation,
  keystrokes: readonly Keystroke[],
  path: readonly number[],
  paceAt: PaceAt,
  isOver: boolean,
): readonly Pass[] {
  const runs: number[][] = [];
  path.forEach((at, n) => {
    const before = path[n - 1];
    const isPaused = n > 0 && keystrokes[n]!.onset - keystrokes[n - 1]!.onset > PAUSE;
    const goesOn = before !== undefined && at >= before - (isPaused ? 0 : BACK) && at <= before + AHEAD;
    if (goesOn) runs.at(-1)!.push(n);
    else runs.push([n]);
  });
  const end = onsets.length - 1;
  // Nobody begins again with the last key of all: a lone one at the end is a slip in the pass before.
  const placed = [...path];
  const [before, lone] = runs.slice(-2);
  if (isOver && before && lone?.length === 1) {
    placed[lone[0]!] = Math.min(end, placed[before.at(-1)!]! + 1);
    before.push(...runs.pop()!);
  }
  return runs.map((strokes, i): Pass => {
    const own = strokes.map((n) => placed[n]!);
    const times = new Map<number, number[]>();
    strokes.forEach((n, i) => {
      const { midi, onset } = keystrokes[n]!;
      const at = own[i]!;
      if (!onsets[at]!.notes.some((note) => note.midi === midi)) return;
      times.set(at, [...(times.get(at) ?? []), onset]);
    });
    return {
      strokes,
      path: own,
      // A first or last onset of the music that was missed or another key: who begins or ends beside it meant it.
      from: i === 0 && Math.min(...own) <= BESIDE_END ? 0 : Math.min(...own),
      to: isOver && i === runs.length - 1 && Math.max(...own) >= end - BESIDE_END ? end : Math.max(...own),
      struckAt: struckAt(onsets, times, paceAt),
    };
  });
}

/** Seconds within which the keys of one onset are struck. */
const TOGETHER = 0.2;

/** When each onset was struck: of keys that came twice those count that the tempo lets one expect. */
function struckAt(
  onsets: Expectation['onsets'],
  times: ReadonlyMap<number, readonly number[]>,
  paceAt: PaceAt,
): ReadonlyMap<number, number> {
  const struck = new Map<number, number>();
  let before: readonly [onset: number, time: number] | undefined;
  for (const [at, list] of [...times].sort((a, b) => a[0] - b[0])) {
    const due =
      before &&
      before[1] + ((onsets[at]!.time - onsets[before[0]]!.time) / TICKS_PER_QUARTER) * paceAt(before[1]);
    const nearest =
      due === undefined ? list[0]! : list.reduce((a, b) => (Math.abs(b - due) < Math.abs(a - due) ? b : a));
    const time = median(list.filter((t) => Math.abs(t - nearest) <= TOGETHER));
    struck.set(at, time);
    before = [at, time];
  }
  return struck;
}

export function median(numbers: readonly number[]): number {
  const sorted = [...numbers].sort((a, b) => a - b);
  const middle = sorted.length >> 1;
  return sorted.length % 2 === 1 ? sorted[middle]! : (sorted[middle - 1]! + sorted[middle]!) / 2;
}

/** Onsets on either side from which the pace around a moment is taken. */
const AROUND = 6;

/** Seconds for a quarter around each moment: the middle of what the steps near it took. `usual` where nothing is known. */
export function paceOf({ onsets }: Expectation, passes: readonly Pass[], usual: number): PaceAt {
  const steps = passes.flatMap(({ struckAt }) => {
    const points = [...struckAt].sort((a, b) => a[0] - b[0]);
    return points.slice(1).flatMap(([at, time], i) => {
      const [before, earlier] = points[i]!;
      const quarters = (onsets[at]!.time - onsets[before]!.time) / TICKS_PER_QUARTER;
      return quarters > 0 && time > earlier ? [{ time, pace: (time - earlier) / quarters }] : [];
    });
  });
  steps.sort((a, b) => a.time - b.time);
  if (steps.length < 3) return () => usual;
  const smooth = steps.map((_, i) =>
    median(steps.slice(Math.max(0, i - AROUND), i + AROUND + 1).map((s) => s.pace)),
  );
  const times = steps.map((s) => s.time);
  return (seconds) => smooth[nearest(times, seconds)]!;
}

function nearest(times: readonly number[], seconds: number): number {
  let [low, high] = [0, times.length - 1];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (times[middle]! < seconds) low = middle + 1;
    else high = middle;
  }
  return low > 0 && seconds - times[low - 1]! < times[low]! - seconds ? low - 1 : low;
}

/** When an onset is due in a pass, in seconds: when it was struck, else between its neighbours, else by the pace. */
export function dueIn({ onsets }: Expectation, pass: Pass, paceAt: PaceAt): (onset: number) => number {
  const points = [...pass.struckAt].sort((a, b) => a[0] - b[0]);
  return (onset) => {
    const struck = pass.struckAt.get(onset);
    if (struck !== undefined) return struck;
    const after = points.findIndex(([at]) => at > onset);
    const [before, next] = [points[(after < 0 ? points.length : after) - 1], points[after]];
    const quartersFrom = (at: number): number => (onsets[onset]!.time - onsets[at]!.time) / TICKS_PER_QUARTER;
    if (before && next) {
      const share = quartersFrom(before[0]) / (quartersFrom(before[0]) - quartersFrom(next[0]));
      return before[1] + share * (next[1] - before[1]);
    }
    const point = before ?? next;
    return point ? point[1] + quartersFrom(point[0]) * paceAt(point[1]) : 0;
  };
}
