/**
 * From a form to what is practised, how far it has come, what fades, what is set for the week and when it is ready.
 *
 * @example
 * chunkId('m0', 'm3'); // => "m0..m3"
 * chunksOf(formOf(song)); // => [{ "from": 0, "to": 3 }]
 * firstTempo(25, 96); // => 62
 * ladder(25, 96); // => [62, 70, 78, 86, 96]
 * ladder(25, 20); // => [20]
 * memoryOf([{ day: '2026-11-02', grade: 3 }])?.due; // => "2026-11-05"
 */
export { chunkId, chunksOf, type ChunkForm } from './chunks';
export { GRADES, gradeText, holding, type Grade, type LessonEvent } from './events';
export {
  chunksIn,
  METHODS,
  planSchema,
  proposedPlan,
  type Chunk,
  type Plan,
  type Step,
  type ToLearn,
} from './plan';
export { edited, planEditSchema, type PlanEdit } from './planEdits';
export {
  gainsOf,
  learnedIn,
  measureStates,
  nextSteps,
  planState,
  type MeasureState,
  type NextStep,
} from './progress';
export { dueOn, memoryOf, retention, reviewsOf, type Review } from './reviews';
export { estimateOf, minutesLeft, paceOf, type Estimate } from './estimate';
export { weekOf, type WeekItem } from './week';
export { isGiven, occurrences, type Occurrence, type Slot } from './slots';
export { strengthsOf } from './strengths';
export { pathPicture, type PathPicture } from './picture';
export { firstTempo, ladder } from './tempi';
export { REVIEW, STEPS, type StepId } from './steps';
