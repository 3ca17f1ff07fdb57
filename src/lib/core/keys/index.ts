/**
 * Every key judged for a learner and a level.
 *
 * @example
 * rankKeys(song, recipe)[0].key; // => "C"
 */
export { levelKey } from './levelKey';
export {
  CRITERIA,
  DEFAULT_WEIGHTS,
  keySentence,
  rankKeys,
  weighed,
  type RankedKey,
  type VoiceRange,
  type Weights,
} from './rank';
