import { endOf } from './metre';
import type { Score } from './score';

/** The measures `from` to `to` (both included, by index) as a score of their own; onsets keep counting from the old start. */
export function excerpt(score: Score, from: number, to: number): Score {
  const measures = score.measures.slice(from, to + 1);
  const first = measures[0];
  const last = measures.at(-1);
  if (!first || !last) return { ...score, measures: [], parts: [], chordSymbols: [], pedals: [] };
  const inside = (item: { onset: number }): boolean => item.onset >= first.start && item.onset < endOf(last);
  return {
    ...score,
    measures,
    parts: score.parts.map((part) => ({ ...part, notes: part.notes.filter(inside) })),
    chordSymbols: score.chordSymbols.filter(inside),
    pedals: score.pedals.filter((p) => p.onset >= first.start && p.onset <= endOf(last)),
  };
}
