/** The kinds of difficulty that a learner can be good at, gathered from what a measure demands. */
import type { Score } from '../score/score';
import { demandsOf } from './private/demands';
import { handTerms, togetherTerms, type TermKind } from './private/terms';

export const STRANDS = ['leaps', 'rhythm', 'reading', 'independence', 'chords', 'speed'] as const;
export type Strand = (typeof STRANDS)[number];

const STRAND_OF: Readonly<Record<TermKind, Strand | null>> = {
  leaps: 'leaps',
  moves: 'leaps',
  rhythm: 'rhythm',
  syncopation: 'rhythm',
  accidentals: 'reading',
  signature: 'reading',
  'ledger lines': 'reading',
  busy: 'independence',
  apart: 'independence',
  voices: 'independence',
  chords: 'chords',
  stretch: 'chords',
  speed: 'speed',
  ornaments: null,
};

/** Points of each strand in every measure, rounded, in the order of STRANDS. */
export const strandsOf = (score: Score): number[][] =>
  demandsOf(score).map((demands) => {
    const terms = [...handTerms(demands, 'right'), ...handTerms(demands, 'left'), ...togetherTerms(demands)];
    return STRANDS.map((strand) =>
      Math.round(terms.filter((t) => STRAND_OF[t.kind] === strand).reduce((sum, t) => sum + t.points, 0)),
    );
  });
