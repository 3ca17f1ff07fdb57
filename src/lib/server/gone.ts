/** What is said of a thing that is not there any more, wherever it is asked for. */

/** What the trash keeps for a while, and what is simply gone. */
const IN_TRASH = ['piece', 'version', 'student', 'lesson'] as const;
type Thing =
  | (typeof IN_TRASH)[number]
  | 'class'
  | 'practice plan'
  | 'template'
  | 'holiday'
  | 'recurring lesson'
  | 'level'
  | 'change'
  | 'choice'
  | 'sound'
  | 'request';

/** "This piece isn’t here any more. Look in the trash." */
export const gone = (thing: Thing): string =>
  `This ${thing} isn’t here any more.${IN_TRASH.some((kind) => kind === thing) ? ' Look in the trash.' : ''}`;
