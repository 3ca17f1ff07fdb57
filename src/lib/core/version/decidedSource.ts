/** What the teacher has decided about a source before it is arranged: its repeats, its sections, its chords. */
import type { ChordSpan } from '../analysis/harmony';
import { formOf } from '../analysis/form';
import { decisionsOf } from '../decisions/decide';
import { readChordRow } from '../decisions/kinds/chordSymbols';
import type { Decision, DecisionOf } from '../decisions/registry';
import { sameData, stage } from '../pipeline/memo';
import { endOf } from '../score/metre';
import type { ChordSymbol, Score } from '../score/score';
import { writtenOut } from '../score/writtenOut';
import type { Analysed } from './analysed';

/** The source with its repeats written out and its sections where the teacher has them. */
export function decidedSource(source: Score, decisions: readonly Decision[]): Score {
  const repeats = decisionsOf(decisions, 'repeats').at(-1)?.value;
  const sections = decisionsOf(decisions, 'section');
  const unfolded = repeats === 'written out' ? unfold(source) : source;
  return sections.length > 0 ? withSections(unfolded, sameData(sections)) : unfolded;
}

const unfold = stage('unfold', writtenOut);

const withSections = stage(
  'sections',
  (source: Score, decisions: readonly DecisionOf<'section'>[]): Score => {
    const byId = new Map(source.measures.map((m) => [m.id, m.index]));
    const starts = new Map(
      formOf(source).sections.map(({ from, label, letter, role }) => [
        from,
        // A letter is what it is called for want of a name: it follows from the sections.
        {
          name: label.startsWith(letter) && label.length <= 3 ? undefined : label,
          role: role?.from === 'name' ? role.role : undefined,
        },
      ]),
    );
    for (const { at, value } of decisions) {
      const measure = 'measure' in at ? byId.get(at.measure) : undefined;
      if (measure === undefined) continue;
      if (value !== 'none')
        starts.set(measure, { name: value.name || starts.get(measure)?.name, role: value.role ?? undefined });
      else if (measure > 0) starts.delete(measure);
    }
    return {
      ...source,
      sectionStarts: [...starts]
        .map(([measure, start]) => ({ measure, ...start }))
        .sort((a, b) => a.measure - b.measure),
    };
  },
);

/** What was analysed with the chords that the teacher has written into measures. */
export function withDecidedChords(analysed: Analysed, decisions: readonly Decision[]): Analysed {
  const chords = decisionsOf(decisions, 'chords');
  return chords.length > 0 ? rowsStage(analysed, sameData(chords)) : analysed;
}

const rowsStage = stage(
  'chord rows',
  (from: Analysed, decisions: readonly DecisionOf<'chords'>[]): Analysed => {
    const { score } = from;
    const spans = decisions.reduce(
      (spans, { at, value }) => {
        const measure = 'measure' in at ? score.measures.find((m) => m.id === at.measure) : undefined;
        const row = readChordRow(value);
        if (!measure || !row) return spans;
        const [start, end] = [measure.start, endOf(measure)];
        const before = spans.findLast((s) => s.onset < start)?.chord ?? null;
        const made = row.map((chord, i): ChordSpan => ({
          onset: start + Math.round((i * measure.length) / row.length),
          duration: 0,
          // Before its first chord the one that sounded goes on.
          chord: chord === undefined ? (row.slice(0, i).findLast((c) => c !== undefined) ?? before) : chord,
          from: 'symbol',
        }));
        const after = spans.findLast((s) => s.onset <= end);
        const rest =
          after && end < endOf(score.measures.at(-1)!) && !spans.some((s) => s.onset === end)
            ? [{ ...after, onset: end }]
            : [];
        return [
          ...spans.filter((s) => s.onset < start),
          ...made,
          ...rest,
          ...spans.filter((s) => s.onset >= end),
        ];
      },
      from.chords as readonly ChordSpan[],
    );
    const chords = timed(spans, endOf(score.measures.at(-1)!));
    const chordSymbols: ChordSymbol[] = chords.map(({ onset, chord }) => ({ onset, chord }));
    return { ...from, score: { ...score, chordSymbols }, chords };
  },
);

/** Each lasts to the next; the same chord twice is one. */
function timed(spans: readonly ChordSpan[], end: number): ChordSpan[] {
  const distinct = spans.filter(
    (s, i) => i === 0 || JSON.stringify(s.chord) !== JSON.stringify(spans[i - 1]!.chord),
  );
  return distinct.map((s, i) => ({ ...s, duration: (distinct[i + 1]?.onset ?? end) - s.onset }));
}
