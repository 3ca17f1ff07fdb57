/** The keyboard of a lesson as data: what each key does, for the lesson and for the help. */
import { GRADES } from '$core/lessons/events';

export type LessonAct =
  | 'check off'
  | 'play'
  | 'listen'
  | 'accept'
  | 'next step'
  | 'previous step'
  | 'next chunk'
  | 'previous chunk'
  | 'tap'
  | 'metronome'
  | 'write'
  | 'set week'
  | 'end'
  | 'grade 1'
  | 'grade 2'
  | 'grade 3'
  | 'grade 4';

interface LessonKey {
  readonly press: string;
  readonly does: string;
  readonly act: LessonAct;
}

export const LESSON_KEYS: readonly LessonKey[] = [
  { press: 'Enter', does: 'check off the step', act: 'check off' },
  { press: ' ', does: 'play the step, or stop', act: 'play' },
  { press: 'l', does: 'listen to the step, or stop', act: 'listen' },
  { press: 'a', does: 'accept what was heard', act: 'accept' },
  { press: 'ArrowDown', does: 'next step', act: 'next step' },
  { press: 'ArrowUp', does: 'previous step', act: 'previous step' },
  { press: 'ArrowRight', does: 'next chunk', act: 'next chunk' },
  { press: 'ArrowLeft', does: 'previous chunk', act: 'previous chunk' },
  ...GRADES.map((says, i) => ({
    press: String(i + 1),
    does: `grade: ${says}`,
    act: `grade ${i + 1}` as LessonAct,
  })),
  { press: 'b', does: 'tap the beat', act: 'tap' },
  { press: 'm', does: 'metronome', act: 'metronome' },
  { press: 'n', does: 'write lesson notes (Esc goes back)', act: 'write' },
  { press: 'w', does: 'set the practice for the week', act: 'set week' },
  { press: 'e', does: 'end the lesson; it can be reopened', act: 'end' },
];
