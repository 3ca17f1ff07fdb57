/** What every version of a source needs to know about it, worked out once and kept as long as the source is. */
import { formOf, type Form } from '../analysis/form';
import { chordsOf, type ChordSpan } from '../analysis/harmony';
import { keyOf, withHeardMode } from '../analysis/key';
import { withIntroduction } from '../arrange/singAlong';
import type { Score } from '../score/score';
import { keyCode, type Key } from '../theory/key';
import { transposeScore, transpositionTo } from '../transpose/transpose';

export interface Analysed {
  /** The source with its mode as heard and its chords as symbols. */
  readonly score: Score;
  readonly key: Key;
  readonly form: Form;
}

export interface InKey {
  readonly score: Score;
  readonly chords: readonly ChordSpan[];
}

interface Entry extends Analysed {
  readonly chords: readonly ChordSpan[];
  readonly keys: Map<string, InKey>;
}

const known = new WeakMap<Score, Map<number, Entry>>();

function entryOf(source: Score, introduction: number): Entry {
  const versions = known.get(source) ?? new Map<number, Entry>();
  known.set(source, versions);
  const before = versions.get(introduction);
  if (before) return before;
  const key = keyOf(source);
  const heard = withHeardMode(source);
  const chords = chordsOf(heard);
  const named = { ...heard, chordSymbols: chords.map(({ onset, chord }) => ({ onset, chord })) };
  const score = withIntroduction(named, key, introduction);
  const entry: Entry = {
    score,
    key,
    form: formOf(introduction > 0 ? score : heard),
    chords: introduction > 0 ? chordsOf(score) : chords,
    keys: new Map(),
  };
  versions.set(introduction, entry);
  return entry;
}

/** A source and its form, with so many measures of introduction before it. */
export const analysed = (source: Score, introduction = 0): Analysed => entryOf(source, introduction);

/** The source in a key, with its chords there. */
export function inKey(source: Score, key: Key, introduction = 0): InKey {
  const entry = entryOf(source, introduction);
  const code = keyCode(key);
  const before = entry.keys.get(code);
  if (before) return before;
  const score = transposeScore(entry.score, transpositionTo(entry.key, key));
  const made: InKey =
    score === entry.score || score.chordSymbols.length === 0
      ? { score, chords: entry.chords }
      : {
          score,
          chords: chordsOf(score).map((span, i) => ({ ...span, from: entry.chords[i]?.from ?? span.from })),
        };
  entry.keys.set(code, made);
  return made;
}
