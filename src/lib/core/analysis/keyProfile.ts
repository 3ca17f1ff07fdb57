/**
 * The key of a set of pitches by the profiles of Krumhansl and Kessler (1982): how well each pitch class fits each
 * degree. Used where a source has no signature.
 */
import { pitchClass } from '../theory/fifths';
import { tonicFifths, type Key } from '../theory/key';
import { hasMinorThird } from '../theory/modes';

const MAJOR = [6.35, 2.23, 3.48, 2.33, 4.38, 4.09, 2.52, 5.19, 2.39, 3.66, 2.29, 2.88];
const MINOR = [6.33, 2.68, 3.52, 5.38, 2.6, 3.53, 2.54, 4.75, 3.98, 2.69, 3.34, 3.17];

/** The best fitting key; `weights` are durations by pitch class 0–11. */
export function keyFromProfile(weights: readonly number[]): Key {
  let best: Key = { fifths: 0, mode: 'major' };
  let most = -Infinity;
  for (const mode of ['major', 'minor'] as const)
    for (let fifths = -6; fifths <= 6; fifths++) {
      const key: Key = { fifths, mode };
      const fit = keyFit(weights, key);
      // Of enharmonic twins the one with fewer accidentals, which comes first as |fifths| is compared.
      if (fit > most + 1e-9 || (Math.abs(fit - most) < 1e-9 && Math.abs(fifths) < Math.abs(best.fifths)))
        [best, most] = [key, fit];
    }
  return best;
}

/** How well durations by pitch class fit a key, −1 to 1. */
export function keyFit(weights: readonly number[], key: Key): number {
  const tonic = pitchClass(tonicFifths(key));
  const profile = hasMinorThird(key.mode) ? MINOR : MAJOR;
  return correlation(
    weights,
    weights.map((_, pc) => profile[(pc - tonic + 12) % 12]!),
  );
}

function correlation(a: readonly number[], b: readonly number[]): number {
  const mean = (values: readonly number[]): number => values.reduce((x, y) => x + y, 0) / values.length;
  const [ma, mb] = [mean(a), mean(b)];
  const sum = (f: (i: number) => number): number => a.reduce((total, _, i) => total + f(i), 0);
  const top = sum((i) => (a[i]! - ma) * (b[i]! - mb));
  const bottom = Math.sqrt(sum((i) => (a[i]! - ma) ** 2) * sum((i) => (b[i]! - mb) ** 2));
  return bottom === 0 ? 0 : top / bottom;
}

/** Major and minor of a signature. */
export const bothModes = (fifths: number): Key[] => [
  { fifths, mode: 'major' },
  { fifths, mode: 'minor' },
];
