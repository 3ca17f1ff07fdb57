/**
 * From a piece in its key to the notes of both hands, within a level.
 *
 * @example
 * levelNumbered(2).name; // => "Two hands"
 * isForLevel('waltz-bass', 3, { beats: 3, beatType: 4 }); // => true
 * isForLevel('waltz-bass', 3, { beats: 4, beatType: 4 }); // => false
 */
export { arrange } from './arrange';
export type { Arranged, ArrangeSettings } from './arranged';
export { LEVELS, levelNumbered, levelsSchema, type LevelContract } from './levels';
export { KEYBOARDS, REACH_SEMITONES } from './register';
export { isForLevel, TEXTURES, type TextureId } from './textures';
