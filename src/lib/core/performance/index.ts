/**
 * The piece as it sounds.
 *
 * @example
 * const performance = perform(score);
 * const { seconds } = clockOf(performance);
 * performance.notes.map((n) => [n.midi, seconds(n.onset)]);
 */
export { clockOf, type Clock } from './tempo';
export { perform, USUAL_TEMPO } from './perform';
export type { Performance, PlayedMeasure, PlayedNote, PlayedPedal, TempoPoint } from './played';
