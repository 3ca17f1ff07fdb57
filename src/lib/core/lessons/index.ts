/**
 * From a form to what is practised, and how far it has come.
 *
 * @example
 * chunkId('m0', 'm3'); // => "m0..m3"
 * chunksOf(formOf(song), song.measures).map((c) => c.id); // => ["m0..m3"]
 * stepTempo({ share: 0.6 }, 96); // => 58
 * stepTempo({ share: 0.6 }, 20); // => 20
 */
export { chunkId, chunksOf, learnedIn, measureStates, nextStep, stepsOf, stepState, stepTempo } from './plan';
export type { Chunk, Learned, MeasureState, ProgressEvent, StepState } from './plan';
export { pathPicture, type PathPicture } from './picture';
export { STEPS, type Step, type StepId } from './steps';
