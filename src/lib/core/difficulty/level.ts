/** What the difficulty of its measures says about a whole piece. */
import type { MeasureDifficulty } from './difficulty';

/** Scores from which a piece is of level 2, 3 … 6: between the graded studies of neighbouring levels. */
export const LEVEL_FROM = [16, 23, 40, 49, 62] as const;

/** The mean of the hardest tenth of the measures: a piece is as hard as what is hard in it. */
export function scoreOfWhole(difficulty: readonly { readonly score: number }[]): number {
  if (difficulty.length === 0) return 0;
  const hardest = difficulty.map((d) => d.score).sort((a, b) => b - a);
  const tenth = hardest.slice(0, Math.ceil(hardest.length / 10));
  return Math.round(tenth.reduce((a, b) => a + b, 0) / tenth.length);
}

/** 1 to 6 for a score from 0 to 100. */
export const levelOf = (score: number): number => 1 + LEVEL_FROM.filter((from) => score >= from).length;

/** A leap, in staff positions, that stands out however the other measures are: more than an octave. */
const WIDE_LEAP = 7;

/** The hardest measures, three at most, that stand out and say why. `isNew` leaves out what has stood before. */
export function hardestOf(
  difficulty: readonly MeasureDifficulty[],
  isNew: (measure: number) => boolean = () => true,
): MeasureDifficulty[] {
  const mean = difficulty.reduce((sum, d) => sum + d.score, 0) / Math.max(1, difficulty.length);
  return difficulty
    .filter((d) => isNew(d.measure) && d.reasons.length > 0 && (d.score > mean || d.leap > WIDE_LEAP))
    .sort((a, b) => b.score - a.score || a.measure - b.measure)
    .slice(0, 3);
}
