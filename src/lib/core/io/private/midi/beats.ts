/**
 * The beat of playing that was recorded without a click: the file's own beats mean nothing, so the beat is found in the
 * playing, as a path of nearly even steps through the onsets (after Ellis, "Beat Tracking by Dynamic Programming", 2007).
 */

/** Seconds per step of the search. */
const STEP = 0.01;
const SLOWEST = 1.0;
const FASTEST = 0.33;
/** People tap to most music about this often, in seconds. */
const USUAL = 0.6;
/** How dearly an uneven step is paid for. */
const EVENNESS = 30;

/** Times of the beats, in seconds, from the first onset to beyond the last; `onsets` in seconds, in order. */
export function trackBeats(onsets: readonly { readonly at: number; readonly weight: number }[]): number[] {
  const first = onsets[0]!.at;
  const length = Math.ceil((onsets.at(-1)!.at - first) / STEP) + 1;
  const strength = new Float64Array(length);
  for (const { at, weight } of onsets) {
    const middle = Math.round((at - first) / STEP);
    // A stroke is felt over some hundredths of a second.
    for (let k = -4; k <= 4; k++)
      if (middle + k >= 0 && middle + k < length)
        strength[middle + k]! += weight * Math.exp(-0.5 * (k / 2) ** 2);
  }
  const period = usualPeriod(strength);
  const score = new Float64Array(length);
  const back = new Int32Array(length).fill(-1);
  for (let t = 0; t < length; t++) {
    let best = 0;
    for (let step = Math.round(period * 0.6); step <= Math.round(period * 1.6); step++) {
      const before = t - step;
      if (before < 0) break;
      const reached = score[before]! - EVENNESS * Math.log(step / period) ** 2;
      if (reached > best) [best, back[t]] = [reached, before];
    }
    score[t] = strength[t]! + best;
  }
  let at = length - 1;
  for (let t = Math.max(0, length - Math.round(period)); t < length; t++) if (score[t]! > score[at]!) at = t;
  const beats: number[] = [];
  for (; at >= 0; at = back[at]!) beats.unshift(first + at * STEP);
  return extended(beats, period * STEP, first, onsets.at(-1)!.at);
}

/** Steps from beat to beat, by how well the onsets agree with themselves so much later. */
function usualPeriod(strength: Float64Array): number {
  let best = { period: Math.round(USUAL / STEP), fit: 0 };
  for (let period = Math.round(FASTEST / STEP); period <= Math.round(SLOWEST / STEP); period++) {
    let agreement = 0;
    for (const times of [1, 2, 4])
      for (let t = 0; t + times * period < strength.length; t++)
        agreement += strength[t]! * strength[t + times * period]!;
    const fit = agreement * Math.exp(-0.5 * (Math.log2((period * STEP) / USUAL) / 0.7) ** 2);
    if (fit > best.fit) best = { period, fit };
  }
  return best.period;
}

/** Beats before the first and after the last one found, so that every onset lies between two. */
function extended(beats: readonly number[], period: number, from: number, to: number): number[] {
  const result = [...beats];
  const [opening, closing] = [
    result.length > 1 ? result[1]! - result[0]! : period,
    result.length > 1 ? result.at(-1)! - result.at(-2)! : period,
  ];
  while (result[0]! > from + opening / 4) result.unshift(result[0]! - opening);
  while (result.at(-1)! <= to) result.push(result.at(-1)! + closing);
  return result;
}

/** A time as a number of beats: whole on the beats, in proportion between them. */
export function beatPosition(beats: readonly number[], at: number): number {
  let low = 0;
  let high = beats.length - 2;
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if (beats[middle]! <= at) low = middle;
    else high = middle - 1;
  }
  const [a, b] = [beats[low]!, beats[low + 1]!];
  return low + (at - a) / (b - a);
}
