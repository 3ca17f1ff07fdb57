/** What would suit a learner next: music a step above what they have learned, with what it asks more and less of. */
import { STRANDS, type Strand } from '../difficulty/strands';

/** Points of each strand in all of some measures, in the order of STRANDS. */
export interface StrandTotals {
  readonly measures: number;
  readonly points: readonly number[];
}

interface Candidate {
  readonly id: string;
  readonly totals: StrandTotals;
}

/** The totals of measures, each with its points by strand. */
export const strandTotals = (measures: readonly (readonly number[])[]): StrandTotals => ({
  measures: measures.length,
  points: STRANDS.map((_, s) => measures.reduce((sum, m) => sum + (m[s] ?? 0), 0)),
});

interface Suiting {
  readonly id: string;
  /** How much harder than what was learned: 1.1 for a tenth. */
  readonly step: number;
  readonly more: readonly Strand[];
  readonly less: readonly Strand[];
}

/** A step is right between these, and best in the middle. */
const STEP = { least: 0.9, best: 1.12, most: 1.5 };
/** A strand is spoken of where it differs by so many points in a measure. */
const FELT = 1.5;

const means = ({ measures, points }: StrandTotals): number[] => points.map((p) => p / Math.max(1, measures));
const total = (of: readonly number[]): number => of.reduce((a, b) => a + b, 0);

/** The candidates that suit, the best first. `weak` are strands that do not go well: more of those counts against one. */
export function suiting(
  learned: StrandTotals,
  candidates: readonly Candidate[],
  weak: ReadonlySet<Strand>,
): Suiting[] {
  if (learned.measures === 0) return [];
  const now = means(learned);
  return candidates
    .map(({ id, totals }) => {
      const then = means(totals);
      const step = total(then) / Math.max(1, total(now));
      const differing = (isMore: boolean): Strand[] =>
        STRANDS.filter((_, s) => (isMore ? then[s]! - now[s]! : now[s]! - then[s]!) > FELT);
      return { id, step, more: differing(true), less: differing(false) };
    })
    .filter(({ step }) => step >= STEP.least && step <= STEP.most)
    .map((found) => ({
      found,
      off: Math.abs(found.step - STEP.best) + 0.15 * found.more.filter((s) => weak.has(s)).length,
    }))
    .sort((a, b) => a.off - b.off || a.found.id.localeCompare(b.found.id))
    .map(({ found }) => found);
}

/** "a step up; harder: rhythm and chords; easier: leaps" */
export function suitingText({ step, more, less }: Suiting): string {
  const size =
    step < 0.98
      ? 'a little easier'
      : step < 1.05
        ? 'about as hard'
        : step < 1.25
          ? 'a step up'
          : 'a big step up';
  const list = (strands: readonly Strand[]): string =>
    strands.length > 1 ? `${strands.slice(0, -1).join(', ')} and ${strands.at(-1)!}` : (strands[0] ?? '');
  const parts = [
    ...(more.length > 0 ? [`harder: ${list(more)}`] : []),
    ...(less.length > 0 ? [`easier: ${list(less)}`] : []),
  ];
  return parts.length > 0 ? `${size}; ${parts.join('; ')}` : size;
}
