/** One piece in all twelve keys, as a set: for players who go where the singer goes. */
import { keyOf } from '../analysis/home';
import type { Score } from '../score/score';
import type { Key } from '../theory/key';
import { keyAbove, transposeScore, transpositionTo } from './transpose';

interface InOneKey {
  readonly key: Key;
  readonly score: Score;
}

/**
 * The twelve keys of the source's mode by semitones upwards from its own, which comes first. Where two spellings tie at six
 * accidentals the one on the source's side (sharps or flats) is taken.
 */
export function inAllKeys(score: Score): InOneKey[] {
  const own = keyOf(score);
  const side = own.fifths < 0 ? -1 : 1;
  return Array.from({ length: 12 }, (_, up): InOneKey => {
    if (up === 0) return { key: own, score };
    const key = keyAbove(own, up, side);
    return { key, score: transposeScore(score, transpositionTo(own, key)) };
  });
}
