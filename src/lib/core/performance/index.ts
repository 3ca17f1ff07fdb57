/**
 * The piece as it sounds.
 *
 * @example
 * perform(song).notes.slice(0, 2).map((n) => n.midi); // => [48,60]
 * clockOf(perform(song)).seconds(10080); // => 0.6
 */
export { clockOf, type Clock } from './tempo';
export { perform, USUAL_TEMPO } from './perform';
export type { Performance, PlayedMeasure, PlayedNote, PlayedPedal, TempoPoint } from './played';
export {
  clicksAlone,
  programOf,
  type Click,
  type Hands,
  type HeardNote,
  type Program,
  type ProgramSettings,
  type SpokenWord,
} from './program';
