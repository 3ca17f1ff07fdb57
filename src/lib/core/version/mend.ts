/** A source with its mistakes mended: what a teacher has put right holds for every version, and is kept beside the file, which stays. */
import { withDecidedNotes } from '../decisions/apply';
import { decisionsOf } from '../decisions/decide';
import { groupLengths } from '../score/metre';
import type { Decision, KindId } from '../decisions/registry';
import type { Score } from '../score/score';
import { parseKey } from '../theory/key';
import { withDecidedRows } from './private/decidedRows';

/** Kinds of which a decision can be a correction: what is written, not how it is arranged or played. */
const MENDING: ReadonlySet<KindId> = new Set([
  'pitch',
  'octave',
  'length',
  'hold',
  'hand',
  'add',
  'drop',
  'chords',
  'home',
  'groups',
]);

/** Whether a decision can be a correction of a source: it is about the whole, or a note or a measure that the source itself has. */
export function canMend(
  { kind, at }: Decision,
  { parts, measures }: Pick<Score, 'parts' | 'measures'>,
): boolean {
  if (!MENDING.has(kind)) return false;
  if ('version' in at) return true;
  if ('note' in at) return parts.some((part) => part.notes.some((n) => n.id === at.note));
  return 'measure' in at && measures.some((m) => m.id === at.measure);
}

/** The source as it should have been. Mends of what it does not hold are left. */
export function mended(score: Score, mends: readonly Decision[]): Score {
  if (mends.length === 0) return score;
  const layout = { measures: score.measures, sections: [] };
  const surroundings = {
    measures: score.measures,
    chordAt: () => null,
    inKey: <T>(pitch: T): T => pitch,
    reach: () => Infinity,
    rightNotes: Infinity,
  };
  const parts = score.parts.map((part) => {
    const own = new Set(part.notes.map((n) => n.id));
    const about = mends.filter((m) => 'note' in m.at && own.has(m.at.note));
    if (about.length === 0) return part;
    const { made } = withDecidedNotes(part.notes, about, surroundings, layout);
    return {
      ...part,
      notes: [...made].sort((a, b) => a.onset - b.onset || a.staff - b.staff || a.voice - b.voice),
    };
  });
  return withSaidHome(withSaidGroups(withDecidedRows({ ...score, parts }, mends), mends), mends);
}

function withSaidHome(score: Score, mends: readonly Decision[]): Score {
  const home = decisionsOf(mends, 'home').map(({ value }) => parseKey(value))[0];
  return home ? { ...score, home } : score;
}

/** Groups hold in the measures whose metre they fill. */
function withSaidGroups(score: Score, mends: readonly Decision[]): Score {
  const groups = decisionsOf(mends, 'groups').map(({ value }) => groupLengths(value))[0];
  if (!groups) return score;
  const filled = groups.reduce((sum, group) => sum + group, 0);
  return {
    ...score,
    measures: score.measures.map((m) =>
      m.time.beats === filled ? { ...m, time: { ...m.time, groups } } : m,
    ),
  };
}
