/** What a practice room is about: today's steps of one student, as they are set or, where nothing is, as they are next. */
import type { TimeSignature } from '../score/score';
import type { StepHand } from './steps';

/** A step of today, ready to be practised. Tempi are quarter notes per minute, measures by index. */
export interface RoomTask {
  readonly assignment: string;
  readonly title: string;
  readonly time: TimeSignature;
  readonly chunk: string;
  readonly from: number;
  readonly to: number;
  /** "A, measures 1 to 4" */
  readonly where: string;
  readonly step: string;
  /** The step's name. */
  readonly says: string;
  /** null where nothing is played. */
  readonly hand: StepHand | null;
  readonly counting: boolean;
  readonly tempo: number;
  /** The rungs up to the goal, where the step climbs them. */
  readonly ladder: readonly number[];
  /** A day. */
  readonly minutes: number;
  readonly why: 'next' | 'due';
  /** It was done today, by the student's word or the ear's. */
  readonly isDone: boolean;
}

/** Names a task among those of a day. */
export const taskId = ({
  assignment,
  chunk,
  step,
}: Pick<RoomTask, 'assignment' | 'chunk' | 'step'>): string => `${assignment} ${chunk} ${step}`;

/** Minutes of a week's line, shared between its steps in whole minutes; the first has what is left over. */
export function sharedMinutes(minutes: number, steps: number): number[] {
  const each = Math.floor(minutes / Math.max(1, steps));
  return Array.from({ length: steps }, (_, i) => (i === 0 ? minutes - each * (steps - 1) : each));
}
