/**
 * Which hand plays what, and what no hand holds.
 *
 * @example
 * playablePart(song.parts[0], song.measures, { right: 14, left: 14 }).wide; // => []
 */
export { playablePart, type PlayablePart } from './playable';
export { wideChords, type WideChord } from './wide';
