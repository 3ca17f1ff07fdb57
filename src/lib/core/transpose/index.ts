/**
 * Moving music to another key, its spelling functional.
 *
 * @example
 * transpositionTo(C, { fifths: 1, mode: 'major' }); // => {"semitones":-5,"fifths":1}
 * keyAbove(C, 6, -1).fifths; // => -6
 * transposeScore(song, { semitones: 2, fifths: 2 }).measures[0].key.fifths; // => 2
 */
export { inAllKeys } from './allKeys';
export { inverse, keyAbove, transposeScore, transpositionTo, type Transposition } from './transpose';
