/** A score with the chords that are decided for single measures. */
import { decisionsOf } from '../../decisions/decide';
import type { Decision } from '../../decisions/registry';
import type { Score } from '../../score/score';
import { withChordRow } from '../../score/chordRow';

export const withDecidedRows = (score: Score, decisions: readonly Decision[]): Score => ({
  ...score,
  chordSymbols: decisionsOf(decisions, 'chords').reduce((symbols, { at, value }) => {
    const measure = 'measure' in at ? score.measures.find((m) => m.id === at.measure) : undefined;
    return measure ? withChordRow(symbols, value, measure, measure === score.measures.at(-1)) : symbols;
  }, score.chordSymbols),
});
