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
  const entry = introduction === 0 ? analyse(source) : introduced(entryOf(source, 0), introduction);
  versions.set(introduction, entry);
  return entry;
}

function analyse(source: Score): Entry {
  const heard = withHeardMode(source);
  const chords = chordsOf(heard);
  const score = { ...heard, chordSymbols: chords.map(({ onset, chord }) => ({ onset, chord })) };
  return { score, key: keyOf(source), form: formOf(heard), chords, keys: new Map() };
}

/** The same with measures before it. */
function introduced({ score: song, key, form }: Entry, count: number): Entry {
  const score = withIntroduction(song, key, count, form.sections);
  return { score, key, form: formOf(score), chords: chordsOf(score), keys: new Map() };
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
