/**
 * A tune while it is written: a sketch, what each stroke does to it, and the music of it.
 *
 * @example
 * toScore(writeLetter(deskOf(EMPTY), 'G').sketch).parts[0].notes.length; // => 1
 * measureAtDesk(writeLetter(deskOf(EMPTY), 'G')); // => 0
 */
export { deskOf, measureAtDesk, writeLetter, type Desk } from './compose';
export { EMPTY, sketchSchema, type Sketch } from './sketch';
export { toScore } from './toScore';
