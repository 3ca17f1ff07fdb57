/** What is asked of the hands in a measure, weighed in points: each term grows with what it measures and never falls. */
import type { HandDemands, MeasureDemands } from './demands';

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

/** Points for the number of notes at once in one hand. */
const CHORD_POINTS = [0, 0, 3, 6, 9, 11, 13];
const chordPoints = (notes: number): number => CHORD_POINTS[Math.min(notes, CHORD_POINTS.length - 1)]!;

/** Points for each division of the beat that has to be kept apart from the others. */
const SIMPLE_DIVISION: Readonly<Record<number, number>> = { 1: 0, 2: 1, 3: 3, 4: 2.5, 6: 3.5, 8: 3.5 };
const COMPOUND_DIVISION: Readonly<Record<number, number>> = { 1: 0, 2: 3, 3: 1, 4: 3.5, 6: 2.5, 12: 3.5 };
const ODD_DIVISION = 4.5;

/** What each demand on one hand is worth; nothing where it rests. */
export function handTerms(demands: MeasureDemands, hand: 'right' | 'left'): Term[] {
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

/** What the hands demand of each other. */
export function togetherTerms({ right, left, apart }: MeasureDemands): Term[] {
  if (!right || !left) return [];
  return [
    { kind: 'busy', points: 1.7 * (right.strokesPerSecond * left.strokesPerSecond) ** 0.4 },
    { kind: 'apart', points: 4 * Math.log1p(apart) },
  ];
}

const mean = (numbers: readonly number[]): number => numbers.reduce((a, b) => a + b, 0) / numbers.length;
