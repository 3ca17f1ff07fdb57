/**
 * Where in the music each keystroke belongs: a hidden Markov model whose states are the onsets of the score, decoded by Viterbi's
 * algorithm. After Nakamura, Nakamura, Saito, Ono and Sagayama, "Outer-product hidden Markov model and polyphonic MIDI score following"
 * (Journal of New Music Research 43, 2014): besides the usual steps (on, together, over a missed onset) a player may go anywhere from
 * anywhere, at a price that does not depend on from where; so restarts, repeats and skips cost no more time than playing on.
 */
import { TICKS_PER_QUARTER } from '../../score/ticks';
import type { Expectation, ExpectedOnset } from '../expectation';
import type { Keystroke } from '../keystroke';

/** Prices in nats. What a key costs that the onset has, that lies a step or an octave beside one of it, and any other. */
const KEY = { right: 0, beside: 2.6, other: 4.2 } as const;
const BESIDE = new Set([1, 2, 12]);
/** Each onset that is passed over. */
const SKIPPED = 2.4;
const MOST_SKIPPED = 3;
/** Neighbours played in the other order, or a key struck again. */
const BACK = 2;
/** After a pause, to begin again a few onsets before. */
const AGAIN = 3;
const MOST_AGAIN = 10;
/** To anywhere; less to the beginning of a measure, and after a pause. */
const JUMP = 9;
const TO_MEASURE = -2;
const AFTER_PAUSE = -1.5;
/** Seconds of silence that are a pause, at least. */
export const PAUSE = 0.7;
/** Seconds within which a chord is struck, and within which it may be rolled. */
const [CHORD, ROLLED] = [0.06, 0.3];
/** What it costs to be twice as slow or quick as the tempo so far, and at the most. */
const OFF_TEMPO = 1.5;
const OFF_TEMPO_AT_MOST = 2.6;
/** To stay where nothing more is to be struck: soon after, and later than any chord is rolled. */
const [STAYED, STAYED_LONG] = [1.6, 3];

/** Seconds for a quarter note around a moment. */
export type PaceAt = (seconds: number) => number;

/** The index of an onset for each keystroke, in their order. */
export function follow(
  { onsets }: Expectation,
  keystrokes: readonly Keystroke[],
  paceAt: PaceAt,
): readonly number[] {
  const size = onsets.length;
  if (size === 0 || keystrokes.length === 0) return [];
  const prices = pricesOf(onsets);
  let cost = Float64Array.from(
    onsets,
    (onset, k) => prices(k, keystrokes[0]!.midi) + (k === 0 ? 0 : arrival(onset, true)),
  );
  const back: Int32Array[] = [];
  for (let n = 1; n < keystrokes.length; n++) {
    const { onset: now, midi } = keystrokes[n]!;
    const gap = now - keystrokes[n - 1]!.onset;
    const pace = paceAt(now);
    const best = indexOfLeast(cost);
    const next = new Float64Array(size);
    const from = new Int32Array(size);
    for (let k = 0; k < size; k++) {
      let least = cost[best]! + arrival(onsets[k]!, gap > PAUSE);
      let source = best;
      const furthest = Math.min(size - 1, k + (gap > PAUSE ? MOST_AGAIN : 1));
      for (let j = Math.max(0, k - 1 - MOST_SKIPPED); j <= furthest; j++) {
        const price = cost[j]! + stepPrice(onsets, j, k, gap, pace);
        if (price < least) [least, source] = [price, j];
      }
      next[k] = least + prices(k, midi);
      from[k] = source;
    }
    back.push(from);
    cost = next;
  }
  const path = new Array<number>(keystrokes.length);
  path[keystrokes.length - 1] = indexOfLeast(cost);
  for (let n = keystrokes.length - 1; n > 0; n--) path[n - 1] = back[n - 1]![path[n]!]!;
  return path;
}

const arrival = ({ opensMeasure }: ExpectedOnset, afterPause: boolean): number =>
  JUMP + (opensMeasure ? TO_MEASURE : 0) + (afterPause ? AFTER_PAUSE : 0);

/** What it costs to come from one onset to another near it, `gap` seconds after the keystroke before. */
function stepPrice(
  onsets: readonly ExpectedOnset[],
  from: number,
  to: number,
  gap: number,
  pace: number,
): number {
  if (to === from) {
    const isChord = onsets[to]!.notes.length > 1;
    return gap < CHORD ? 0 : isChord && gap < ROLLED ? 0.5 : gap < ROLLED ? STAYED : STAYED_LONG;
  }
  if (to < from) return gap > PAUSE ? AGAIN : BACK + (gap < CHORD ? 0 : STAYED);
  const quarters = (onsets[to]!.time - onsets[from]!.time) / TICKS_PER_QUARTER;
  const expected = Math.max(0.02, quarters * pace);
  const off = OFF_TEMPO * Math.abs(Math.log2(Math.max(gap, 0.02) / expected));
  return (to - from - 1) * SKIPPED + Math.min(OFF_TEMPO_AT_MOST, off);
}

/** What a key costs at an onset. */
function pricesOf(onsets: readonly ExpectedOnset[]): (onset: number, midi: number) => number {
  const sets = onsets.map(({ notes }) => new Set(notes.map((n) => n.midi)));
  const beside = sets.map((set) => {
    const near = new Set<number>();
    for (const midi of set) for (const by of BESIDE) near.add(midi + by).add(midi - by);
    return near;
  });
  return (onset, midi) =>
    sets[onset]!.has(midi) ? KEY.right : beside[onset]!.has(midi) ? KEY.beside : KEY.other;
}

function indexOfLeast(costs: Float64Array): number {
  let least = 0;
  for (let i = 1; i < costs.length; i++) if (costs[i]! < costs[least]!) least = i;
  return least;
}
