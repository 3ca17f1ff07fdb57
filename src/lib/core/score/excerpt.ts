import { endOf } from './metre';
import type { PedalMark, Score } from './score';
import type { Ticks } from './ticks';

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
    pedals: pedalsWithin(score.pedals, first.start, endOf(last)),
  };
}

/** Pedal marks of a stretch, complete in themselves: what is down when it begins goes down there, what is down at its end comes up. */
function pedalsWithin(pedals: readonly PedalMark[], from: Ticks, to: Ticks): PedalMark[] {
  const before = pedals.filter((p) => p.onset < from).at(-1);
  const inside = pedals.filter((p) => p.onset >= from && p.onset < to);
  const isDown = before !== undefined && before.type !== 'stop';
  const [first, ...others] = inside;
  const opened: PedalMark[] = !isDown
    ? inside.filter((p, i) => i > 0 || p.type !== 'stop')
    : first?.onset === from
      ? [...(first.type === 'stop' ? [] : [{ onset: from, type: 'start' as const }]), ...others]
      : [{ onset: from, type: 'start' }, ...inside];
  const last = opened.at(-1);
  return last && last.type !== 'stop' ? [...opened, { onset: to, type: 'stop' }] : opened;
}
