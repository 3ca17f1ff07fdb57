/** Parts as they were read, measure by measure, laid over one frame of measures: a Score. */
import { shownAccidentals } from '../../score/accidentals';
import { staffPosition } from '../../theory/pitch';
import type { Measure, Note, Part, Score } from '../../score/score';
import type { Ticks } from '../../score/ticks';
import { frameOf } from './frame';
import { withHeardGroups } from './groups';
import type { ReadMeasure, ReadPart } from './readMeasures';

/** The score of some parts; at least one of them must have a measure. Parts without notes are left out, unless none has any. */
export function assembleScore(title: string, composer: string, readParts: readonly ReadPart[]): Score {
  const framed = frameOf(readParts);
  const measures = withHeardGroups(
    framed,
    framed.map((_, i) => readParts.flatMap((p) => p.measures[i]?.beamed ?? [])),
  );
  const all = readParts.map((part) => toPart(part, measures));
  const withNotes = all.filter((part) => part.notes.length > 0);
  // A chart has chords and words, but no notes.
  const parts = withNotes.length > 0 ? withNotes : all.slice(0, 1);
  const withSymbols = readParts.find((p) => p.measures.some((m) => m.symbols.length > 0));
  const tempos = inOrder(readParts.flatMap((p) => collected(p, measures, 'tempos'))).filter(
    (t, i, all) => i === 0 || t.onset !== all[i - 1]!.onset,
  );
  const changes = tempos.filter((t, i) => i > 0 && t.tempo !== tempos[i - 1]!.tempo);
  return {
    title,
    composer,
    tempo: tempos[0]?.tempo ?? 0,
    ...(changes.length > 0 ? { tempoChanges: changes } : {}),
    measures,
    parts,
    chordSymbols: withSymbols ? collected(withSymbols, measures, 'symbols') : [],
    pedals: inOrder(readParts.flatMap((p) => collected(p, measures, 'pedals'))),
  };
}

const inOrder = <T extends { readonly onset: Ticks }>(items: readonly T[]): T[] =>
  [...items].sort((a, b) => a.onset - b.onset);

/** An item of a measure, its onset counted from the beginning of the score. */
const placed = <T extends { readonly onset: Ticks }>(item: T, measure: Measure): T => ({
  ...item,
  onset: item.onset + measure.start,
});

type Listed = 'symbols' | 'pedals' | 'tempos' | 'clefs' | 'marks';

const collected = <K extends Listed>(
  part: ReadPart,
  measures: readonly Measure[],
  what: K,
): ReadMeasure[K][number][] =>
  part.measures.flatMap((m, i) => m[what].map((item) => placed(item, measures[i]!)));

function toPart(part: ReadPart, measures: readonly Measure[]): Part {
  const notes = part.measures.flatMap((m, i) =>
    withoutNeededReminders(
      measures[i]!,
      m.notes.map((n) => placed(n, measures[i]!)),
    ),
  );
  const clefs = collected(part, measures, 'clefs');
  const marks = inOrder(collected(part, measures, 'marks'));
  return {
    id: part.id,
    name: part.name,
    staves: part.staves,
    notes: notes.sort(inReadingOrder),
    ...(clefs.length > 0 ? { clefs } : {}),
    ...(marks.length > 0 ? { marks } : {}),
  };
}

/** An accidental that the measure needs is no reminder: it is printed in any case. */
function withoutNeededReminders(measure: Measure, notes: readonly Note[]): Note[] {
  if (!notes.some((n) => n.reminder)) return [...notes];
  const needed = shownAccidentals(measure, notes);
  return notes.map((note) => {
    if (note.reminder !== 'plain' || !needed.has(note.id)) return note;
    const { reminder: _needed, ...rest } = note;
    return rest;
  });
}

/** In order of time; grace notes stand before their main note, or after it. */
export const inReadingOrder = (a: Note, b: Note): number =>
  a.onset - b.onset ||
  a.staff - b.staff ||
  a.voice - b.voice ||
  placeOfGrace(a) - placeOfGrace(b) ||
  staffPosition(a.pitch) - staffPosition(b.pitch);

const placeOfGrace = ({ grace }: Note): number =>
  !grace ? 0 : grace.after ? 1 + grace.order : grace.order - 1000;
