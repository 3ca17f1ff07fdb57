/** One piece in all twelve keys, as a set: for players who go where the singer goes. */
import { keyOf } from '../analysis/key';
import type { Score } from '../score/score';
import { pitchClass } from '../theory/fifths';
import { tonicFifths, type Key } from '../theory/key';
import { transposeScore, transpositionTo } from './transpose';

export interface InOneKey {
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
    const candidates = Array.from({ length: 13 }, (_, i): Key => ({ fifths: i - 6, mode: own.mode }))
      .filter((k) => (pitchClass(tonicFifths(k)) - pitchClass(tonicFifths(own)) + 12) % 12 === up)
      .sort((a, b) => Math.abs(a.fifths) - Math.abs(b.fifths) || side * (b.fifths - a.fifths));
    const key = candidates[0]!;
    return { key, score: transposeScore(score, transpositionTo(own, key)) };
  });
}
