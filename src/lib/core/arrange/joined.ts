/** Two settings of the same music in one: each measure from one of them. */
import { measureAt } from '../score/query';
import type { Measure, Note } from '../score/score';
import type { Ticks } from '../score/ticks';
import type { ArrangedHands } from './arranged';

/**
 * The hands of `first` in the measures where `isFirst` holds (by index), those of `second` in the others. What is tied from one into
 * the other ends at the barline. Clefs follow from the notes.
 */
export function joinedHands(
  measures: readonly Measure[],
  isFirst: (measure: number) => boolean,
  first: ArrangedHands,
  second: ArrangedHands,
): ArrangedHands {
  const indexOf = (onset: Ticks): number => measureAt(measures, onset).index;
  const join = <T>(of: (hands: ArrangedHands) => readonly T[], measureOf: (item: T) => number): T[] => [
    ...of(first).filter((item) => isFirst(measureOf(item))),
    ...of(second).filter((item) => !isFirst(measureOf(item))),
  ];
  const timed = <T extends { readonly onset: Ticks }>(of: (hands: ArrangedHands) => readonly T[]): T[] =>
    join(of, (item) => indexOf(item.onset)).sort((a, b) => a.onset - b.onset);
  return {
    notes: untied(
      timed((h) => h.notes),
      measures,
      isFirst,
    ),
    marks: timed((h) => h.marks),
    chordSymbols: timed((h) => h.chordSymbols),
    reasons: join(
      (h) => h.reasons,
      (r) => r.measure,
    ),
    melodyChanges: join(
      (h) => h.melodyChanges,
      (c) => c.measure,
    ),
    folds: timed((h) => h.folds),
    ownMeasures: new Set(
      join(
        (h) => [...h.ownMeasures],
        (measure) => measure,
      ),
    ),
  };
}

/** Without ties over the barlines at which one setting ends and the other begins; what was only held there is no longer struck. */
export function untied(
  notes: readonly Note[],
  measures: readonly Measure[],
  isFirst: (measure: number) => boolean,
): Note[] {
  const changes = (at: Ticks, by: -1 | 1): boolean => {
    const { index } = measureAt(measures, at);
    const other = index + by;
    return other >= 0 && other < measures.length && isFirst(index) !== isFirst(other);
  };
  const isFirstOf = (note: Note): boolean => note.onset === measureAt(measures, note.onset).start;
  const isLastOf = (note: Note): boolean => {
    const { start, length } = measureAt(measures, note.onset);
    return note.onset + note.duration === start + length;
  };
  /** Keys that are held on from the other setting, by voice and pitch, with where they would go on. */
  const heldIn = new Map<string, Ticks>();
  return notes.flatMap((note): Note[] => {
    const { tie, ...plain } = note;
    if (tie === undefined) return [note];
    const key = `${note.voice} ${note.pitch.step}${note.pitch.alter}${note.pitch.octave}`;
    const isHeldIn =
      tie !== 'start' && ((isFirstOf(note) && changes(note.onset, -1)) || heldIn.get(key) === note.onset);
    if (isHeldIn) {
      heldIn.set(key, note.onset + note.duration);
      return [];
    }
    const goesOut = tie !== 'stop' && isLastOf(note) && changes(note.onset, 1);
    if (!goesOut) return [note];
    return [tie === 'both' ? { ...plain, tie: 'stop' } : plain];
  });
}
