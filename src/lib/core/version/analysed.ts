/** The first stages: what every version of a source needs to know about it. */
import { formOf, type Form } from '../analysis/form';
import { chordsOf, type ChordSpan } from '../analysis/harmony';
import { keyOf } from '../analysis/home';
import { withHeardMode } from '../analysis/key';
import { withIntroduction } from '../arrange/singAlong';
import { sameData, stage } from '../pipeline/memo';
import type { Score } from '../score/score';
import type { Ticks } from '../score/ticks';
import type { Key } from '../theory/key';
import { transposeScore, transpositionTo } from '../transpose/transpose';

export interface Analysed {
  /** The source with its mode as heard and its chords as symbols. */
  readonly score: Score;
  readonly key: Key;
  readonly form: Form;
  readonly chords: readonly ChordSpan[];
}

export interface InKey {
  readonly score: Score;
  readonly chords: readonly ChordSpan[];
}

const analyse = stage('analyse', (source: Score): Analysed => {
  const heard = withHeardMode(source);
  const chords = chordsOf(heard);
  const score = { ...heard, chordSymbols: chords.map(({ onset, chord }) => ({ onset, chord })) };
  return { score, key: keyOf(source), form: formOf(heard), chords };
});

/** The same with so many measures before it. */
const introduce = stage(
  'introduce',
  ({ score: song, key, form, chords }: Analysed, count: number): Analysed => {
    const score = withIntroduction(song, key, count, form.sections);
    const by = score.measures[count]!.start;
    // What was heard in the song is still heard, and no symbol.
    const fromOf = (onset: Ticks): ChordSpan['from'] =>
      chords.find((c) => c.onset <= onset - by && onset - by < c.onset + c.duration)?.from ?? 'symbol';
    return {
      score,
      key,
      form: formOf(score),
      chords: chordsOf(score).map((span) => ({ ...span, from: fromOf(span.onset) })),
    };
  },
);

/** A source, its key, form and chords, with so many measures of introduction before it. */
export const analysed = (source: Score, introduction = 0): Analysed =>
  introduction === 0 ? analyse(source) : introduce(analyse(source), introduction);

const transpose = stage('transpose', (from: Analysed, key: Key): InKey => {
  const score = transposeScore(from.score, transpositionTo(from.key, key));
  return score === from.score || score.chordSymbols.length === 0
    ? { score, chords: from.chords }
    : {
        score,
        chords: chordsOf(score).map((span, i) => ({ ...span, from: from.chords[i]?.from ?? span.from })),
      };
});

/** What was analysed, in a key. */
export const inKey = (from: Analysed, key: Key): InKey => transpose(from, sameData(key));
