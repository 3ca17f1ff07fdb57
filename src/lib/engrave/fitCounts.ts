/** Where counts stand on their line: onsets under their notes, held beats in the room between them. In the engraver's units. */
import type { Sheet } from './sheet';

/** Of the size, in the monospaced face that counts are set in. */
const CHARACTER_WIDTH = 0.6;
const COUNT_GAP = 110;
/** Between a count and a barline. */
const BAR_GAP = 90;

export interface PlacedCount {
  readonly text: string;
  readonly kind: Sheet['counts'][number]['kind'];
  readonly size: number;
  readonly x: number;
  readonly y: number;
  /** The beginning and the end of its measure: no count meets a barline. */
  readonly left: number;
  readonly right: number;
}

const halfOf = ({ text, size }: Pick<PlacedCount, 'text' | 'size'>): number =>
  (text.length * size * CHARACTER_WIDTH) / 2;

/** Held beats are not set smaller than this share of their size: they could not be read. */
const SMALLEST = 0.55;

/** Onsets stay under their notes, but clear of barlines; the held beats and rests between two of them share the room that there is. */
export function fitted(given: readonly PlacedCount[]): PlacedCount[] {
  const counts = narrowed(given);
  const isHeld = (c: PlacedCount | undefined, { y, right }: PlacedCount): boolean =>
    c !== undefined && c.kind !== 'onset' && c.y === y && c.right === right;
  return counts.flatMap((count, i) => {
    if (count.kind === 'onset') return [clear(count)];
    const before = counts[i - 1];
    if (isHeld(before, count)) return [];
    let end = i + 1;
    while (isHeld(counts[end], count)) end += 1;
    const after = counts[end];
    const isNear = (c: PlacedCount | undefined): c is PlacedCount =>
      c?.y === count.y && c.right === count.right;
    return inRoom(
      counts.slice(i, end),
      Math.max(isNear(before) ? before.x + halfOf(before) + COUNT_GAP : -Infinity, count.left + BAR_GAP),
      Math.min(isNear(after) ? after.x - halfOf(after) - COUNT_GAP : Infinity, count.right - BAR_GAP),
    );
  });
}

/** Onsets closer together than their words are wide: both are set smaller, as far as they can still be read. */
function narrowed(counts: readonly PlacedCount[]): PlacedCount[] {
  const shares = counts.map(() => 1);
  counts.forEach((count, i) => {
    const next = counts[i + 1];
    if (count.kind !== 'onset' || next?.kind !== 'onset' || next.y !== count.y) return;
    const share = (next.x - count.x - COUNT_GAP / 2) / (halfOf(count) + halfOf(next));
    if (share >= 1) return;
    for (const k of [i, i + 1]) shares[k] = Math.max(SMALLEST, Math.min(shares[k]!, share));
  });
  return counts.map((c, i) => (shares[i] === 1 ? c : { ...c, size: Math.floor(c.size * shares[i]!) }));
}

/** A count under the last note of a narrow measure stays before the barline. */
const clear = (count: PlacedCount): PlacedCount => ({
  ...count,
  x: Math.max(count.left + halfOf(count), Math.min(count.x, count.right - BAR_GAP / 2 - halfOf(count))),
});

/** "(2)" as "2": its colour says that it is held. */
const bare = (count: PlacedCount): PlacedCount => ({
  ...count,
  text: count.text.replace(/^\((.+)\)$/, '$1'),
});

/** Several held beats as one mark: "2–9". */
const folded = (run: readonly PlacedCount[]): PlacedCount => ({
  ...run[0]!,
  x: (run[0]!.x + run.at(-1)!.x) / 2,
  text: run.length === 1 ? '·' : `${bare(run[0]!).text}–${bare(run.at(-1)!).text}`,
});

/**
 * A run of held beats between two places: each where its beat is, or as near as the others leave it. Where there is not enough room
 * they are smaller, then without their brackets, then folded into one.
 */
function inRoom(run: readonly PlacedCount[], left: number, right: number): PlacedCount[] {
  const shareOf = (counts: readonly PlacedCount[]): number =>
    (right - left - COUNT_GAP * (counts.length - 1)) / counts.reduce((sum, c) => sum + 2 * halfOf(c), 0);
  const chosen = [run, run.map(bare), [folded(run)]].find((counts) => shareOf(counts) >= SMALLEST);
  if (!chosen) return [];
  const share = Math.min(1, shareOf(chosen));
  const sized = chosen.map((c) => ({ ...c, size: Math.floor(c.size * share) }));
  // From the right, so that they give way to what comes after them; then from the left, so that they clear what came before.
  let limit = right;
  const given = sized
    .toReversed()
    .map((c) => {
      const x = Math.min(c.x, limit - halfOf(c));
      limit = x - halfOf(c) - COUNT_GAP;
      return { ...c, x };
    })
    .toReversed();
  limit = left;
  return given.map((c) => {
    const x = Math.max(c.x, limit + halfOf(c));
    limit = x + halfOf(c) + COUNT_GAP;
    return { ...c, x };
  });
}
