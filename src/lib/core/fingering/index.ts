/**
 * The fingers of one hand over a whole line.
 *
 * @example
 * fingerHand(song, song.parts[0], 'right', formOf(song), { reach: 14, locks: new Map(), steadiness: 1 }).fingering.fingers.size; // => 9
 */
export { alternativesIn } from './alternatives';
export { explainFinger, type FingerReason } from './explain';
export { fingerHand, playedBy, struckBy, type FingeredHand } from './fingerHand';
export type { Hand } from './events';
export type { Finger } from './grips';
export { positionsOf, type HandPosition } from './positions';
