/** Walking through what is read out of a picture: by onset within a hand, through a chord, and to the other hand. */
import type { Reading } from '$core/version/announce';

type ReadingMove = 'next' | 'previous' | 'up' | 'down';

/** The entry reached from one by its id; that one itself where there is no way on, the first of the right hand where there is none. */
export function walkReading(
  readings: readonly Reading[],
  current: string | undefined,
  move: ReadingMove,
): Reading | undefined {
  const here = readings.find((r) => r.id === current);
  if (!here) return readings.find((r) => r.staff === 1) ?? readings[0];
  if (move === 'next' || move === 'previous') {
    const hand = readings.filter((r) => r.staff === here.staff);
    const onsets = [...new Set(hand.map((r) => r.onset))];
    const onset = onsets[onsets.indexOf(here.onset) + (move === 'next' ? 1 : -1)];
    return hand.findLast((r) => r.onset === onset) ?? here;
  }
  const together = readings.filter((r) => r.onset === here.onset).sort((a, b) => a.midi - b.midi);
  const beyond = together[together.indexOf(here) + (move === 'up' ? 1 : -1)];
  if (beyond) return beyond;
  const staff = move === 'up' ? 1 : 2;
  const other = readings.filter((r) => r.staff === staff);
  return here.staff === staff ? here : (other.findLast((r) => r.onset <= here.onset) ?? other[0] ?? here);
}

const MOVES: Readonly<Record<string, ReadingMove>> = {
  ArrowRight: 'next',
  ArrowLeft: 'previous',
  ArrowUp: 'up',
  ArrowDown: 'down',
};

/** What a key means in a picture that is read out. */
export const readingMove = ({
  key,
  ctrlKey,
  metaKey,
  altKey,
  shiftKey,
}: KeyboardEvent): ReadingMove | undefined =>
  ctrlKey || metaKey || altKey || shiftKey ? undefined : MOVES[key];
