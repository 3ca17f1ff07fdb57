/** A piece without repeat signs: every measure as often as it is played, one after another. */
import { playingOrder } from './unfold';
import type { Mark, Measure, Note, Score } from './score';
import type { Ticks } from './ticks';

/** Marks the second and later visits of a measure in its id and those of its notes: "m4~2". */
const again = (id: string, visit: number): string => (visit === 1 ? id : `${id}~${visit}`);

/**
 * Writes the repeats, endings and jumps of a score out. What is played the first time keeps its ids; what comes again has them with
 * the number of the visit behind, so that what is decided or learned about either is its own. The score itself where nothing repeats.
 */
export function writtenOut(score: Score): Score {
  const order = playingOrder(score.measures);
  if (order.every((index, i) => index === i) && order.length === score.measures.length) return score;
  const visits = new Map<number, number>();
  let start = 0;
  const passes = order.map((index, place) => {
    const visit = (visits.get(index) ?? 0) + 1;
    visits.set(index, visit);
    const from = score.measures[index]!;
    const pass = { from, visit, place, shift: start - from.start };
    start += from.length;
    return pass;
  });
  const inPass =
    <T extends { readonly onset: Ticks }>(change: (item: T, visit: number) => T) =>
    (items: readonly T[]): T[] =>
      passes.flatMap(({ from, visit, shift }) =>
        items
          .filter((item) => item.onset >= from.start && item.onset < from.start + from.length)
          .map((item) => change({ ...item, onset: item.onset + shift }, visit)),
      );
  const same = <T>(item: T): T => item;
  const measures = passes.map(({ from, visit, place, shift }): Measure => {
    const {
      repeatStart: _s,
      repeatEnd: _e,
      repeatTimes: _t,
      ending: _n,
      endingEnd: _d,
      route: _r,
      barline,
      ...plain
    } = from;
    return {
      ...plain,
      id: again(from.id, visit),
      index: place,
      number: from.number === '0' ? '0' : String(place + (score.measures[0]?.number === '0' ? 0 : 1)),
      start: from.start + shift,
      ...(barline && barline !== 'final' ? { barline } : {}),
      ...(place === passes.length - 1 ? { barline: 'final' as const } : {}),
      ...(from.changes ? { changes: from.changes.map((c) => ({ ...c, onset: c.onset + shift })) } : {}),
    };
  });
  const { sectionStarts, tempoChanges, ...rest } = score;
  return {
    ...rest,
    measures,
    parts: score.parts.map((part) => ({
      ...part,
      notes: untiedAtJumps(
        inPass<Note>((note, visit) => sungAt({ ...note, id: again(note.id, visit) }, visit))(part.notes),
      ),
      ...(part.clefs ? { clefs: inPass<NonNullable<typeof part.clefs>[number]>(same)(part.clefs) } : {}),
      ...(part.marks ? { marks: inPass<Mark>(same)(part.marks) } : {}),
    })),
    chordSymbols: inPass<Score['chordSymbols'][number]>(same)(score.chordSymbols),
    pedals: inPass<Score['pedals'][number]>(same)(score.pedals),
    ...(tempoChanges
      ? { tempoChanges: inPass<NonNullable<typeof tempoChanges>[number]>(same)(tempoChanges) }
      : {}),
    ...(sectionStarts
      ? {
          sectionStarts: passes.flatMap(({ from, place }) =>
            sectionStarts.filter((s) => s.measure === from.index).map((s) => ({ ...s, measure: place })),
          ),
        }
      : {}),
  };
}

/** Of several verses under a repeat each is sung on its own visit; a last one as often as it must. */
function sungAt(note: Note, visit: number): Note {
  const words = (note.lyrics ?? []).filter((l) => l.line === 'words');
  if (words.length < 2) return note;
  const verses = [...new Set(words.map((l) => l.verse))].sort((a, b) => a - b);
  const verse = verses[Math.min(visit, verses.length) - 1];
  const sung = words.filter((l) => l.verse === verse).map((l) => ({ ...l, verse: 1 }));
  return { ...note, lyrics: [...note.lyrics!.filter((l) => l.line !== 'words'), ...sung] };
}

/** A tie that led on in the source but not the way that is played ends where it stands. */
function untiedAtJumps(notes: readonly Note[]): Note[] {
  const begins = new Set(
    notes.filter((n) => n.tie === 'stop' || n.tie === 'both').map((n) => `${n.onset} ${keyOf(n)}`),
  );
  const ends = new Set(
    notes
      .filter((n) => n.tie === 'start' || n.tie === 'both')
      .map((n) => `${n.onset + n.duration} ${keyOf(n)}`),
  );
  return notes.map((note): Note => {
    if (!note.tie) return note;
    const { tie, ...rest } = note;
    const from = tie !== 'start' && ends.has(`${note.onset} ${keyOf(note)}`);
    const on = tie !== 'stop' && begins.has(`${note.onset + note.duration} ${keyOf(note)}`);
    return from || on ? { ...rest, tie: from && on ? 'both' : from ? 'stop' : 'start' } : rest;
  });
}

const keyOf = ({ pitch: { step, alter, octave }, staff }: Note): string =>
  `${staff} ${step}${alter}${octave}`;
