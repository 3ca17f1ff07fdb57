/** What is said of a thing that is not there any more, wherever it is asked for. */

const TRASH = ['piece', 'version', 'student', 'lesson'] as const;
type Thing =
  | (typeof TRASH)[number]
  | 'class'
  | 'practice plan'
  | 'template'
  | 'holiday'
  | 'backup'
  | 'level'
  | 'recurring lesson';

/** "This piece isn’t here any more. Look in the trash." */
export const gone = (thing: Thing): string =>
  `This ${thing} isn’t here any more.${TRASH.some((kind) => kind === thing) ? ' Look in the trash.' : ''}`;
