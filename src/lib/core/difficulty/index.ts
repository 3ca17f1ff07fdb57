/**
 * How hard each measure is, 0 to 100, and why.
 *
 * @example
 * difficultyOf(song).length; // => 4
 * scoreOfWhole(difficultyOf(song)) < 40; // => true
 */
export { difficultyOf, type MeasureDifficulty } from './difficulty';
export { scoreOfWhole } from './level';
