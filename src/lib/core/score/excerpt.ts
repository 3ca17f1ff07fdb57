import { endOf } from './metre';
import type { ClefMark, Mark, PedalMark, Score } from './score';
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
    parts: score.parts.map((part) => ({
      ...part,
      notes: part.notes.filter(inside),
      ...(part.clefs ? { clefs: clefsWithin(part.clefs, first.start, endOf(last)) } : {}),
      ...(part.marks ? { marks: marksWithin(part.marks, first.start, endOf(last)) } : {}),
    })),
    chordSymbols: score.chordSymbols.filter(inside),
    ...(score.tempoChanges ? { tempoChanges: score.tempoChanges.filter(inside) } : {}),
    pedals: pedalsWithin(score.pedals, first.start, endOf(last)),
  };
}

/** Clefs of a stretch: those that hold when it begins stand at its beginning. */
function clefsWithin(clefs: readonly ClefMark[], from: Ticks, to: Ticks): ClefMark[] {
  const held = new Map<number, ClefMark>();
  for (const clef of clefs) if (clef.onset <= from) held.set(clef.staff, { ...clef, onset: from });
  return [...held.values(), ...clefs.filter((c) => c.onset > from && c.onset < to)];
}

/** Octave signs as stretches: they hold over what is cut, and begin and end anew with it. */
function octaveSignsWithin(marks: readonly Mark[], from: Ticks, to: Ticks): Mark[] {
  const result: Mark[] = [];
  const open = new Map<string, Extract<Mark, { kind: 'octave shift' }>>();
  const span = (start: Extract<Mark, { kind: 'octave shift' }>, end: Ticks): void => {
    const [begin, stop] = [Math.max(from, start.onset), Math.min(to, end)];
    if (begin < stop) result.push({ ...start, onset: begin }, { ...start, type: 'stop', onset: stop });
  };
  for (const mark of marks) {
    if (mark.kind !== 'octave shift') continue;
    const name = `${mark.number} ${mark.staff}`;
    const start = open.get(name);
    if (mark.type !== 'stop') open.set(name, mark);
    else if (start) {
      span(start, mark.onset);
      open.delete(name);
    }
  }
  for (const start of open.values()) span(start, to);
  return result;
}

/** Marks of a stretch: what has a beginning and an end is kept where both lie inside. */
function marksWithin(marks: readonly Mark[], from: Ticks, to: Ticks): Mark[] {
  const result: Mark[] = octaveSignsWithin(marks, from, to);
  const open = new Map<string, Mark>();
  for (const mark of marks) {
    if (mark.kind === 'octave shift') continue;
    if (mark.onset < from || mark.onset > to) continue;
    if (!('type' in mark)) {
      if (mark.onset < to) result.push(mark);
      continue;
    }
    const name = `${mark.kind}${mark.number}${mark.staff}`;
    const start = open.get(name);
    if (mark.type !== 'stop') open.set(name, mark);
    else if (start) {
      result.push(start, mark);
      open.delete(name);
    }
  }
  return result.sort((a, b) => a.onset - b.onset);
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
