/**
 * Where notes end. Programs cut them a little short and players hold them a little long; a reader of the page wants the
 * next note of the hand, or the next beat, as the end where it is near.
 */
import { TICKS_PER_QUARTER, type Ticks } from '../../../score/ticks';

interface Held {
  readonly onset: Ticks;
  readonly duration: Ticks;
  readonly staff: 1 | 2;
}

/** Share of a note by which its end may be off, and the least that is forgiven in any case. */
const FORGIVEN = 0.22;
const LEAST_FORGIVEN = TICKS_PER_QUARTER / 8;

/** Moves ends to the next onset of the hand or to the next beat where these are near. Onsets stay. */
export function settleEnds<T extends Held>(notes: readonly T[]): T[] {
  const onsets = ([1, 2] as const).map((staff) =>
    [...new Set(notes.filter((n) => n.staff === staff).map((n) => n.onset))].sort((a, b) => a - b),
  );
  return notes.map((note) => {
    const end = note.onset + note.duration;
    const slack = Math.max(LEAST_FORGIVEN, note.duration * FORGIVEN);
    const own = onsets[note.staff - 1]!;
    const near = nearestOnset(own, note.onset, end, slack);
    if (near !== undefined) return { ...note, duration: near - note.onset };
    const beat = Math.round(end / TICKS_PER_QUARTER) * TICKS_PER_QUARTER;
    const next = own[placeFrom(own, note.onset + 1)];
    const isFree = next === undefined || next >= beat;
    const isNear = Math.abs(beat - end) <= slack && note.duration >= TICKS_PER_QUARTER / 2;
    return isFree && isNear && beat > note.onset ? { ...note, duration: beat - note.onset } : note;
  });
}

/** The place of the first onset from a tick on, in rising onsets. */
function placeFrom(onsets: readonly Ticks[], tick: Ticks): number {
  let [low, high] = [0, onsets.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (onsets[middle]! < tick) low = middle + 1;
    else high = middle;
  }
  return low;
}

/** The onset after a note that lies nearest to its end, if it lies near; the earlier of two that are as near. */
function nearestOnset(onsets: readonly Ticks[], from: Ticks, end: Ticks, slack: Ticks): Ticks | undefined {
  const at = placeFrom(onsets, end);
  const near = [onsets[at - 1], onsets[at]].filter(
    (onset): onset is Ticks => onset !== undefined && onset > from && Math.abs(onset - end) <= slack,
  );
  return near.reduce<Ticks | undefined>(
    (best, onset) => (best === undefined || Math.abs(onset - end) < Math.abs(best - end) ? onset : best),
    undefined,
  );
}
