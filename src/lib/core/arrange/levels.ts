/** The level contracts of the musical rules, as data. Limits are per hand; spans and leaps in semitones. */
import type { Ticks } from '../score/ticks';
import { noteValue } from '../score/ticks';

export type LevelNumber = 1 | 2 | 3;

export interface LevelContract {
  readonly level: LevelNumber;
  readonly name: string;
  readonly accidentals: number;
  readonly rightNotes: number;
  readonly leftNotes: number;
  /** Widest simultaneous span; undefined where only single notes are struck. */
  readonly span?: number;
  readonly shortestSimple: Ticks;
  readonly shortestCompound: Ticks;
  /** Undotted values (as denominators) that may carry a dot. */
  readonly dotted: readonly number[];
  readonly dottedCompound: readonly number[];
  readonly ties: 'fill' | 'barline' | 'any';
  readonly triplets: boolean;
  readonly leap: number;
  /** Left-hand onsets: a number per measure, or per beat. */
  readonly leftOnsets: { readonly perMeasure?: number; readonly perBeat?: number };
  readonly pedal: boolean;
  /** Goal tempo as a share of the source's. */
  readonly tempoShare: number;
}

export const LEVELS: Readonly<Record<LevelNumber, LevelContract>> = {
  1: {
    level: 1,
    name: 'First hands',
    accidentals: 1,
    rightNotes: 1,
    leftNotes: 1,
    shortestSimple: noteValue(4),
    shortestCompound: noteValue(8),
    dotted: [2],
    dottedCompound: [1, 2, 4],
    ties: 'fill',
    triplets: false,
    leap: 7,
    leftOnsets: { perMeasure: 2 },
    pedal: false,
    tempoShare: 0.7,
  },
  2: {
    level: 2,
    name: 'Two hands',
    accidentals: 2,
    rightNotes: 1,
    leftNotes: 2,
    span: 7,
    shortestSimple: noteValue(8),
    shortestCompound: noteValue(8),
    dotted: [2, 4],
    dottedCompound: [1, 2, 4],
    ties: 'barline',
    triplets: false,
    leap: 9,
    leftOnsets: { perBeat: 1 },
    pedal: false,
    tempoShare: 0.8,
  },
  3: {
    level: 3,
    name: 'Chords',
    accidentals: 3,
    rightNotes: 2,
    leftNotes: 3,
    span: 9,
    shortestSimple: noteValue(8),
    shortestCompound: noteValue(8),
    dotted: [2, 4],
    dottedCompound: [1, 2, 4],
    ties: 'any',
    triplets: true,
    leap: 12,
    leftOnsets: { perBeat: 2 },
    pedal: true,
    tempoShare: 0.85,
  },
};
