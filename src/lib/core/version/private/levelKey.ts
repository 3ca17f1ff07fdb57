/** The key a version takes where nobody has chosen one: the source's, or the nearest that the level reads. */
import type { LevelContract } from '../../arrange/levels';
import type { Score } from '../../score/score';
import { keyOptions } from '../../theory/easyKeys';
import { keyName, withinSix, type Key } from '../../theory/key';
import { transpositionTo } from '../../transpose/transpose';

export interface LevelKey {
  readonly key: Key;
  /** Why it is not the source's; undefined where it is. */
  readonly because?: string;
}

/** Most accidentals in any signature of a score that is moved by a number of fifths. */
const worstSignature = (score: Score, fifths: number): number =>
  score.measures.reduce((worst, m) => {
    const keys = [m.key, ...(m.changes ?? []).flatMap((c) => (c.key ? [c.key] : []))];
    return Math.max(
      worst,
      ...keys.map((k) => Math.abs(fifths === 0 ? k.fifths : withinSix(k.fifths + fifths))),
    );
  }, 0);

/** The nearest key, in semitones, in which no signature has more accidentals than the level; failing that, the easiest. */
export function levelKey(score: Score, sourceKey: Key, contract: LevelContract): LevelKey {
  const most = contract.accidentals;
  if (most === null || worstSignature(score, 0) <= most) return { key: sourceKey };
  const judged = keyOptions(sourceKey.mode).map(({ fifths }) => {
    const key: Key = { fifths, mode: sourceKey.mode };
    const { semitones } = transpositionTo(sourceKey, key);
    const worst = worstSignature(score, fifths - sourceKey.fifths);
    return { key, far: Math.abs(semitones), over: Math.max(0, worst - most), worst };
  });
  const best = judged.sort((a, b) => a.over - b.over || a.far - b.far || a.worst - b.worst)[0]!;
  return {
    key: best.key,
    because: `${keyName(sourceKey)} exceeds this level’s ${most} sharps or flats; moved to ${keyName(best.key)}, the nearest key ${best.over > 0 ? 'with the fewest' : 'within the level'}`,
  };
}
