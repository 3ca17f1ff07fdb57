/** A tempo from a beat that is tapped: the middle of the last intervals, so that one early finger does not count. */

/** Now, by the clock of the page, as it is sent. */
export const instantNow = (): string => new Date().toISOString();

/** A longer pause begins anew, in milliseconds. */
const PAUSE = 2500;
const MOST = 9;
/** Taps from which there is a tempo. */
const ENOUGH = 3;

/** The taps that belong together after another one at `now`, in milliseconds. */
export const tapped = (taps: readonly number[], now: number): number[] =>
  now - (taps.at(-1) ?? -Infinity) > PAUSE ? [now] : [...taps, now].slice(-MOST);

/** Beats per minute of taps; undefined for too few. */
export function tempoOfTaps(taps: readonly number[]): number | undefined {
  if (taps.length < ENOUGH) return undefined;
  const intervals = taps
    .slice(1)
    .map((t, i) => t - taps[i]!)
    .sort((a, b) => a - b);
  const middle = intervals.length / 2;
  const median = (intervals[Math.ceil(middle) - 1]! + intervals[Math.floor(middle)]!) / 2;
  return median > 0 ? Math.round(60_000 / median) : undefined;
}
