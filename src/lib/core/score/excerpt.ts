import { endOf } from './metre';
import { ticksOf, type Places } from './places';
import type { ClefMark, Mark, Measure, Note, PedalMark, Score } from './score';
import type { Ticks } from './ticks';

/** The measures of some places as a score of their own; onsets keep counting from the old start. A measure may be cut at a beat. */
export function excerpt(score: Score, places: Places): Score {
  const whole = score.measures.slice(places.from, places.to + 1);
  if (whole.length === 0) return { ...score, measures: [], parts: [], chordSymbols: [], pedals: [] };
  const { start, end } = ticksOf(score.measures, { ...places, to: places.from + whole.length - 1 });
  const measures = whole.map((measure) => measureWithin(measure, start, end));
  const inside = (item: { onset: number }): boolean => item.onset >= start && item.onset < end;
  return {
    ...score,
    measures,
    parts: score.parts.map((part) => ({
      ...part,
      notes: part.notes.filter(inside).map((note) => noteWithin(note, end)),
      ...(part.clefs ? { clefs: clefsWithin(part.clefs, start, end) } : {}),
      ...(part.marks ? { marks: marksWithin(part.marks, start, end) } : {}),
    })),
    chordSymbols: score.chordSymbols.filter(inside),
    ...(score.tempoChanges ? { tempoChanges: score.tempoChanges.filter(inside) } : {}),
    pedals: pedalsWithin(score.pedals, start, end),
  };
}

/** A measure, or the part of it that lies between two ticks. */
function measureWithin(measure: Measure, from: Ticks, to: Ticks): Measure {
  if (measure.start >= from && endOf(measure) <= to) return measure;
  const start = Math.max(measure.start, from);
  return {
    ...measure,
    start,
    length: Math.min(endOf(measure), to) - start,
    beginsAt: measure.beginsAt + start - measure.start,
  };
}

/** A note as long as it sounds before the end; what it would be tied to lies behind it. */
const noteWithin = (note: Note, end: Ticks): Note => {
  if (note.onset + note.duration <= end) return note;
  const { tie, ...rest } = note;
  const isHeld = tie === 'stop' || tie === 'both';
  return { ...rest, duration: end - note.onset, ...(isHeld ? { tie: 'stop' as const } : {}) };
};

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
