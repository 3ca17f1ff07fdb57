/**
 * What was done, as it was written down: append-only. Everything else about a learner is computed from it.
 *
 * An event names measures of the source by their ids. So a plan that is cut otherwise, a section that begins elsewhere, an introduction
 * in front, another level or key keep it.
 */
import type { Heard } from './heard';
import type { Day } from './calendar';
import type { StepHand } from './steps';

/** How it went, in words: what the four grades are called, from 1. */
export const GRADES = ['not yet', 'with help', 'well', 'with ease'] as const;
export type Grade = 1 | 2 | 3 | 4;

/** What an ungraded tick counts as. */
export const UNGRADED: Grade = 3;

export const gradeText = (grade: Grade): string => GRADES[grade - 1]!;

export interface LessonEvent {
  /** Rising with time. */
  readonly id: number;
  /** First and last measure by their ids in the source, "m0..m3", or a beat of them: "m0:4..m3:2". */
  readonly chunk: string;
  readonly step: string;
  readonly hand: StepHand | null;
  /** Counted aloud. */
  readonly counting: boolean;
  /** Reached, in quarter notes per minute; null where none was measured. */
  readonly tempo: number | null;
  readonly grade: Grade | null;
  /** "teacher", "learner" or "ear" */
  readonly by: string;
  /** What the ear heard of it. */
  readonly heard?: Heard;
  /** ISO instant, and the studio's day of it. */
  readonly at: string;
  readonly day: Day;
  /** The event that this one takes back; such an event says nothing else. */
  readonly withdraws: number | null;
  /** The name that the page gave it that sent it. */
  readonly token?: string | null;
}

/** The events that hold, in order: those that were taken back are gone, and a taking back that was itself taken back is, too. */
export function holding<T extends LessonEvent>(events: readonly T[]): T[] {
  const gone = new Set<number>();
  const ordered = [...events].sort((a, b) => a.id - b.id);
  for (const event of ordered.toReversed())
    if (event.withdraws !== null && !gone.has(event.id)) gone.add(event.withdraws);
  return ordered.filter((event) => event.withdraws === null && !gone.has(event.id));
}

/** Whether a step was gained: "not yet" is an attempt. */
export const isGained = ({ grade }: Pick<LessonEvent, 'grade'>): boolean => grade !== 1;
