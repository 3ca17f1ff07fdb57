/**
 * Where sections begin when nothing in the source says so: at the ends of what comes again. Runs of measures that stand
 * already, a fixed number of measures earlier, vote for their borders; the best cut follows the votes and prefers sections
 * of usual length. Work grows with the number of measures, not with its square.
 */
import type { MeasureContent } from './likeness';

/** What a section of some length costs, in votes; other lengths cost more the further they are from these. */
const LENGTH_COST: Readonly<Record<number, number>> = {
  8: 0,
  16: 0.7,
  4: 0.45,
  12: 1,
  10: 1.6,
  6: 1.4,
  9: 1.6,
  7: 1.6,
};
const UNUSUAL = 2.4;
const LONGEST = 32;
/** Shortest run that speaks for borders. */
const SHORTEST_RUN = 3;
/** Earlier places of a measure that are looked at. */
const MOST_PLACES = 6;
/** A vote is worth no more than this. */
const MOST_VOTES = 2.5;

/** Indices of the measures with which sections begin; `from` is the first full measure, a pickup goes before it. */
export function proposedStarts(contents: readonly MeasureContent[], from: number): number[] {
  const votes = votesOf(contents, from);
  const count = contents.length;
  if (votes.every((v) => v === 0)) return [];
  const cost = new Array<number>(count + 1).fill(Infinity);
  const back = new Array<number>(count + 1).fill(from);
  cost[from] = 0;
  for (let end = from + 1; end <= count; end++)
    for (let start = Math.max(from, end - LONGEST); start < end; start++) {
      const length = end - start;
      const own =
        (LENGTH_COST[length] ?? UNUSUAL + Math.abs(length - 8) / 8) - Math.min(MOST_VOTES, votes[end] ?? 0);
      if (cost[start]! + own < cost[end]!) {
        cost[end] = cost[start]! + own;
        back[end] = start;
      }
    }
  const starts: number[] = [];
  for (let at = count; at > from; at = back[at]!) starts.unshift(back[at]!);
  return starts;
}

/** Votes for a border before each measure. */
function votesOf(contents: readonly MeasureContent[], from: number): number[] {
  const votes = new Array<number>(contents.length + 1).fill(0);
  for (const { start, end, lag } of runsOf(contents, from)) {
    const weight = (end - start + 1) / 4;
    for (const border of [start, end + 1, start - lag, end + 1 - lag])
      if (border > from && border < contents.length) votes[border]! += weight;
  }
  return votes;
}

interface Run {
  readonly start: number;
  readonly end: number;
  readonly lag: number;
}

/** Runs of measures that have the shape of those `lag` measures earlier; one measure between may differ. */
function runsOf(contents: readonly MeasureContent[], from: number): Run[] {
  const places = new Map<string, number[]>();
  const open = new Map<number, { start: number; last: number; matched: number }>();
  const runs: Run[] = [];
  const close = (lag: number, run: { start: number; last: number; matched: number }): void => {
    open.delete(lag);
    if (run.matched >= SHORTEST_RUN && run.matched >= (run.last - run.start + 1) * 0.6)
      runs.push({ start: run.start, end: run.last, lag });
  };
  for (let i = from; i < contents.length; i++) {
    const { shape, strokes } = contents[i]!;
    const earlier = places.get(shape) ?? [];
    for (const place of earlier.slice(-MOST_PLACES)) {
      const lag = i - place;
      const run = open.get(lag);
      if (run && i - run.last <= 2) {
        run.last = i;
        run.matched += 1;
      } else {
        if (run) close(lag, run);
        open.set(lag, { start: i, last: i, matched: 1 });
      }
    }
    for (const [lag, run] of [...open]) if (i - run.last > 2) close(lag, run);
    // An empty measure is like any other and says nothing.
    if (strokes.length > 0 || shape.includes('{')) places.set(shape, [...earlier.slice(-MOST_PLACES), i]);
  }
  for (const [lag, run] of [...open]) close(lag, run);
  return runs;
}
