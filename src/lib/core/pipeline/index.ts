/**
 * Stages kept by exactly what they read.
 *
 * @example
 * sameData({ a: 1 }) === sameData({ a: 1 }); // => true
 * stagesRun(() => undefined); // => []
 */
export { forgetStages, sameData, stage, stagesRun } from './memo';
