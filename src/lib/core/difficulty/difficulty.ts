/**
 * How hard a measure is, for each hand and for both, 0 to 100, with the reasons in a teacher's words; and the level of a
 * whole piece. Every term grows with what it measures and never falls, so that making one thing harder never makes a
 * measure easier; the scale is calibrated on the graded studies in test/studies.ts.
 *
 * What the fingers do enters by the moves that no fingering can avoid and by the width of holds and leaps, not by the
 * cost of one fingering: that cost can fall when notes move apart (a weak finger is spared), and so could the score.
 */
import { reasonsOf } from './reasons';
import { demandsOf, type HandDemands, type MeasureDemands } from './demands';
import type { Score } from '../score/score';

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
}

/** What makes a measure hard. */
export type TermKind =
  | 'speed'
  | 'leaps'
  | 'chords'
  | 'stretch'
  | 'moves'
  | 'rhythm'
  | 'syncopation'
  | 'voices'
  | 'accidentals'
  | 'signature'
  | 'ledger lines'
  | 'ornaments'
  | 'busy'
  | 'apart';

export interface Term {
  readonly kind: TermKind;
  readonly hand?: 'right' | 'left';
  readonly points: number;
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

/** Points for the number of notes at once in one hand. */
const CHORD_POINTS = [0, 0, 3, 6, 9, 11, 13];
const chordPoints = (notes: number): number => CHORD_POINTS[Math.min(notes, CHORD_POINTS.length - 1)]!;

/** Points for each division of the beat that has to be kept apart from the others. */
const SIMPLE_DIVISION: Readonly<Record<number, number>> = { 1: 0, 2: 1, 3: 3, 4: 2.5, 6: 3.5, 8: 3.5 };
const COMPOUND_DIVISION: Readonly<Record<number, number>> = { 1: 0, 2: 3, 3: 1, 4: 3.5, 6: 2.5, 12: 3.5 };
const ODD_DIVISION = 4.5;

function handTerms(demands: MeasureDemands, hand: 'right' | 'left'): Term[] {
  const own: HandDemands | null = demands[hand];
  if (!own) return [];
  const { compound, signature, tempo, perFour } = demands;
  const sizes = own.notesAtOnce.map(chordPoints);
  const division = compound ? COMPOUND_DIVISION : SIMPLE_DIVISION;
  const points: readonly [TermKind, number][] = [
    ['speed', 4 * own.strokesPerSecond ** 0.8 + 1.6 * own.quickest ** 0.8],
    ['leaps', 3 * Math.log1p(own.leapStrain)],
    ['chords', 0.5 * mean(sizes) + 0.5 * Math.max(...sizes)],
    ['stretch', 1.7 * Math.max(0, own.span - 4)],
    ['moves', 2.5 * Math.log1p(own.moves) * Math.sqrt(tempo / 100)],
    [
      'rhythm',
      own.divisions.reduce((total, d) => total + (division[d] ?? ODD_DIVISION), 0) + (own.dotted ? 1.5 : 0),
    ],
    ['syncopation', 4 * Math.log1p(own.syncopation)],
    ['voices', 3 * Math.log1p(own.heldUnder)],
    ['accidentals', 3.5 * Math.log1p(own.accidentals.length * perFour)],
    ['signature', 0.6 * own.bySignature.length + 0.3 * signature],
    ['ledger lines', 2.2 * Math.log1p(own.ledgerLines * perFour)],
    ['ornaments', 2 * Math.log1p(own.ornaments * perFour)],
  ];
  return points.map(([kind, worth]) => ({ kind, hand, points: worth }));
}

function togetherTerms({ right, left, apart }: MeasureDemands): Term[] {
  if (!right || !left) return [];
  return [
    { kind: 'busy', points: 1.7 * (right.strokesPerSecond * left.strokesPerSecond) ** 0.4 },
    { kind: 'apart', points: 4 * Math.log1p(apart) },
  ];
}

const mean = (numbers: readonly number[]): number => numbers.reduce((a, b) => a + b, 0) / numbers.length;
