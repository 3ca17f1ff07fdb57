/** Walking through a version with the arrows: by onset, by measure, through a chord and to the other hand. */
import type { Measure, Note } from '$core/score/score';
import { isStruck, measureAt } from '$core/score/query';
import { toMidi } from '$core/theory/pitch';

export type Move = 'next' | 'previous' | 'next-measure' | 'previous-measure' | 'up' | 'down';

/** Notes that a hand strikes, in the order of the walk. */
export const struckNotes = (notes: readonly Note[]): Note[] =>
  notes.filter(isStruck).sort((a, b) => a.onset - b.onset || toMidi(a.pitch) - toMidi(b.pitch));

/** The note reached from `current`; `current` itself where there is no way on, the first note where there is none. */
export function walk(
  notes: readonly Note[],
  measures: readonly Measure[],
  current: string | undefined,
  move: Move,
): string | undefined {
  const struck = struckNotes(notes);
  const here = struck.find((n) => n.id === current);
  if (!here) return (struck.find((n) => n.staff === 1) ?? struck[0])?.id;
  if (move === 'up' || move === 'down') return vertically(struck, here, move);
  const hand = struck.filter((n) => n.staff === here.staff);
  if (move === 'next' || move === 'previous') {
    const onsets = [...new Set(hand.map((n) => n.onset))];
    const onset = onsets[onsets.indexOf(here.onset) + (move === 'next' ? 1 : -1)];
    return onset === undefined ? here.id : topOf(hand, onset);
  }
  const measure = measureAt(measures, here.onset).index;
  const target =
    move === 'next-measure'
      ? hand.find((n) => measureAt(measures, n.onset).index > measure)
      : hand.findLast((n) => measureAt(measures, n.onset).index < measure);
  if (!target) return here.id;
  const first = hand.find((n) => measureAt(measures, n.onset) === measureAt(measures, target.onset));
  return topOf(hand, first!.onset);
}

/** The note of a chord where the walk arrives: its highest. */
const topOf = (hand: readonly Note[], onset: number): string => hand.findLast((n) => n.onset === onset)!.id;

function vertically(struck: readonly Note[], here: Note, move: 'up' | 'down'): string {
  const together = struck.filter((n) => n.onset === here.onset);
  const beyond = together[together.indexOf(here) + (move === 'up' ? 1 : -1)];
  if (beyond) return beyond.id;
  // Nothing more at this onset: the nearest note of the other hand that is sounding or was last struck.
  const staff = move === 'up' ? 1 : 2;
  if (here.staff === staff) return here.id;
  const other = struck.filter((n) => n.staff === staff);
  const at = other.findLast((n) => n.onset <= here.onset) ?? other[0];
  return at?.id ?? here.id;
}

/** Where a note stood that may not be there any more. */
export type Stood = Pick<Note, 'onset' | 'staff'>;

/** The struck note nearest to where another one stood: in its hand where that has any, the earlier of two as near. */
export function nearestNote(notes: readonly Note[], { onset, staff }: Stood): string | undefined {
  const struck = struckNotes(notes);
  const hand = struck.filter((n) => n.staff === staff);
  const far = (n: Note): number => Math.abs(n.onset - onset);
  return (hand.length > 0 ? hand : struck).reduce<Note | undefined>(
    (best, n) => (best === undefined || far(n) < far(best) ? n : best),
    undefined,
  )?.id;
}

/** First struck note of a measure, the right hand's before the left's. */
export function firstNoteOf(notes: readonly Note[], measure: Measure): string | undefined {
  const inside = struckNotes(notes).filter(
    (n) => n.onset >= measure.start && n.onset < measure.start + measure.length,
  );
  return (inside.find((n) => n.staff === 1) ?? inside[0])?.id;
}
