/** What the teacher has decided about a source before it is arranged: its repeats, its sections, its chords. */
import { chordsOf } from '../../analysis/harmony';
import { formOf } from '../../analysis/form';
import { decisionsOf } from '../../decisions/decide';
import type { Decision, DecisionOf } from '../../decisions/registry';
import { sameData, stage } from '../../pipeline/memo';
import { measureAt } from '../../score/query';
import type { Score } from '../../score/score';
import { writtenOut } from '../../score/writtenOut';
import type { Analysed } from '../analysed';
import { withDecidedRows } from './decidedRows';

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
    const score = withDecidedRows(from.score, decisions);
    const heard = new Map(from.chords.map((span) => [span.onset, span.from]));
    const own = new Set(decisions.flatMap(({ at }) => ('measure' in at ? [at.measure] : [])));
    return {
      ...from,
      score,
      // What is not decided keeps saying where it is from.
      chords: chordsOf(score).map((span) =>
        own.has(measureAt(score.measures, span.onset).id)
          ? span
          : { ...span, from: heard.get(span.onset) ?? span.from },
      ),
    };
  },
);
