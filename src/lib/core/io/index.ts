/**
 * Any file to a Score, and a Score to any format.
 *
 * @example
 * readScoreFile('song.musicxml', bytesOf(song)).score.measures.length; // => 4
 * formatOf('.abc').name; // => "ABC"
 */
export { InputError } from './inputError';
export { readScoreFile } from './readScoreFile';
export type { ReadResult } from './readResult';
export { formatOf, WRITTEN_FORMATS } from './writeScoreFile';
