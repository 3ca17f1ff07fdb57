/** The key as it sounds. Signatures rarely tell minor from major truthfully, so the ending is asked as well. */
import { soundingNotes } from '../score/query';
import type { Score } from '../score/score';
import { pitchClass, toFifths } from '../theory/fifths';
import { tonicFifths, type Key } from '../theory/key';

/** The main key: the first signature, minor where the piece begins or ends like its relative minor. */
export function keyOf(score: Score): Key {
  const first = score.measures[0]!.key;
  if (first.mode === 'minor') return first;
  const last = score.measures.at(-1)!.key;
  const notes = score.parts.flatMap((p) => soundingNotes(p.notes));
  const lastOnset = notes.reduce((latest, n) => Math.max(latest, n.onset), 0);
  const closing = notes.filter((n) => n.onset + n.duration > lastOnset).sort((a, b) => a.midi - b.midi)[0];
  const relative: Key = { fifths: last.fifths, mode: 'minor' };
  const closesOnMinorTonic =
    closing && pitchClass(toFifths(closing.pitch)) === pitchClass(tonicFifths(relative));
  const closingChord = score.chordSymbols.filter((s) => s.chord).at(-1)?.chord;
  const saysMajor = closingChord && closingChord.root !== tonicFifths(relative);
  return closesOnMinorTonic && !saysMajor ? { fifths: first.fifths, mode: 'minor' } : first;
}

/** The score with the mode that was heard written into its measures. */
export function withHeardMode(score: Score): Score {
  const { mode } = keyOf(score);
  return mode === 'major'
    ? score
    : {
        ...score,
        measures: score.measures.map((m) => ({
          ...m,
          key: { ...m.key, mode },
          ...(m.changes
            ? { changes: m.changes.map((c) => (c.key ? { ...c, key: { ...c.key, mode } } : c)) }
            : {}),
        })),
      };
}
