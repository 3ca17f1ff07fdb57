/**
 * The grade that is proposed for a take, on the four words of a lesson, and what it rests on. The teacher's own grade always counts more.
 * Each grade asks for all of its line; what asks for most comes first. What was broken off is "not yet", however well it went so far.
 */
import type { Grade } from '../lessons/events';
import type { Take } from './judge';

interface Asked {
  readonly grade: Grade;
  /** Least share of right notes, less what is too much. */
  readonly right: number;
  /** Most places where the player stands still, for every eight measures. */
  readonly stops: number;
  /** Least share of the tempo that is asked for. */
  readonly tempo: number;
  /** Furthest that onsets may lie from the player's own tempo, as a share of a quarter. */
  readonly unevenness: number;
}

const ASKED: readonly Asked[] = [
  { grade: 4, right: 0.98, stops: 0, tempo: 0.97, unevenness: 0.12 },
  { grade: 3, right: 0.93, stops: 1, tempo: 0.88, unevenness: 0.2 },
  { grade: 2, right: 0.75, stops: 3, tempo: 0.6, unevenness: 1 },
];

interface ProposedGrade {
  readonly grade: Grade;
  /** Share of right notes, less what is too much; tempo reached, as a share of what was asked. */
  readonly right: number;
  readonly tempo?: number;
}

/** Undefined where nothing was played. `tempo`: quarter notes per minute that were asked for. */
export function proposedGrade(take: Take, tempo: number): ProposedGrade | undefined {
  if (take.played.length === 0) return undefined;
  const notes = take.measures.reduce((sum, m) => sum + m.notes.length, 0);
  const extra = take.measures.reduce((sum, m) => sum + m.extra.length, 0);
  const right = Math.max(0, take.right - extra / Math.max(1, notes));
  const reached = take.tempo === undefined ? undefined : take.tempo / tempo;
  const stops = (take.stops * 8) / Math.max(8, take.played.length);
  const grade =
    ASKED.find(
      (asked) =>
        take.isWhole &&
        right >= asked.right &&
        stops <= asked.stops &&
        (reached ?? 1) >= asked.tempo &&
        (take.unevenness ?? 0) <= asked.unevenness,
    )?.grade ?? 1;
  return { grade, right, ...(reached === undefined ? {} : { tempo: reached }) };
}
