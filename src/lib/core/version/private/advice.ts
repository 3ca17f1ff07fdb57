/** What the teacher says beside the music: words to the learner, and which measures are hard whatever the figures say. */
import { decisionsOf } from '../../decisions/decide';
import { rangeHeld, sectionsHeld, type Layout } from '../../decisions/holds';
import type { Decision } from '../../decisions/registry';
import type { MeasureDifficulty } from '../../difficulty/difficulty';
import { sameData } from '../../pipeline/memo';

/** A word to the learner and the measures that it is about, by index; for the whole version from the first to the last. */
export interface Advice {
  readonly from: number;
  readonly to: number;
  readonly text: string;
}

/** What the teacher marked as a hard spot is said first among the reasons. */
export const withHard = (
  difficulty: readonly MeasureDifficulty[],
  hard: readonly (true | undefined)[],
): readonly MeasureDifficulty[] =>
  hard.every((h) => !h)
    ? difficulty
    : difficulty.map((d, i) =>
        hard[i] ? { ...d, isMarked: true, reasons: ['marked as a hard spot', ...d.reasons] } : d,
      );

/** Everything that is said to the learner, in the order of its places. */
export const adviceOf = (decisions: readonly Decision[], layout: Layout): readonly Advice[] =>
  sameData(
    decisionsOf(decisions, 'advice')
      .flatMap(({ at, value: text }): Advice[] => {
        if ('version' in at) return [{ from: 0, to: layout.measures.length - 1, text }];
        if ('section' in at)
          return sectionsHeld(at.section, layout).map((i) => ({ ...layout.sections[i]!, text }));
        const range =
          'range' in at ? at.range : 'measure' in at ? ([at.measure, at.measure] as const) : undefined;
        const held = range && rangeHeld(range, layout);
        return held ? [{ ...held, text }] : [];
      })
      .map(({ from, to, text }) => ({ from, to, text }))
      .sort((a, b) => a.from - b.from || b.to - a.to),
  );
