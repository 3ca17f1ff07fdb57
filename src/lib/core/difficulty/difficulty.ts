/**
 * How hard a measure is, for each hand and for both, 0 to 100, with the reasons in a teacher's words; and the level of a
 * whole piece. Every term grows with what it measures and never falls, so that making one thing harder never makes a
 * measure easier; the scale is calibrated on the graded studies in test/studies.ts.
 *
 * What the fingers do enters by the moves that no fingering can avoid and by the width of holds and leaps, not by the
 * cost of one fingering: that cost can fall when notes move apart (a weak finger is spared), and so could the score.
 */
import type { Score } from '../score/score';
import { demandsOf } from './private/demands';
import { reasonsOf } from './private/reasons';
import { handTerms, togetherTerms, type Term } from './private/terms';

export interface HandDifficulty {
  readonly score: number;
  /** At most three, the biggest first. */
  readonly reasons: readonly string[];
}

export interface MeasureDifficulty extends HandDifficulty {
  /** Index of the measure. */
  readonly measure: number;
  /** null where the hand has nothing to play. */
  readonly right: HandDifficulty | null;
  readonly left: HandDifficulty | null;
  /** Widest leap of a hand within it, in staff positions: 7 is an octave. */
  readonly leap: number;
  /** The teacher has marked it as hard. */
  readonly isMarked?: true;
}

/** The difficulty of every measure of the keyboard part, at the tempo of the score. */
export function difficultyOf(score: Score): MeasureDifficulty[] {
  return demandsOf(score).map((demands, measure): MeasureDifficulty => {
    const right = handTerms(demands, 'right');
    const left = handTerms(demands, 'left');
    const together = togetherTerms(demands);
    const [more, less] = [sum(right), sum(left)].sort((a, b) => b - a) as [number, number];
    return {
      measure,
      score: onScale(more + SECOND_HAND * less + sum(together)),
      reasons: reasonsOf(demands, [...right, ...left, ...together]),
      right: demands.right && { score: onScale(sum(right)), reasons: reasonsOf(demands, right) },
      leap: Math.max(demands.right?.leap ?? 0, demands.left?.leap ?? 0),
      left: demands.left && { score: onScale(sum(left)), reasons: reasonsOf(demands, left) },
    };
  });
}

/** The easier hand counts for less than the harder one. */
const SECOND_HAND = 0.5;
/** Points at which the scale has gone through all but 1/e of its way to 100. */
const SCALE = 92;

const sum = (terms: readonly Term[]): number => terms.reduce((total, t) => total + t.points, 0);
const onScale = (points: number): number => Math.round(100 * (1 - Math.exp(-points / SCALE)));
