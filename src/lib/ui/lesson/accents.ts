/** Which clicks of a measure are accented. */
import type { Click } from '$core/performance/program';
import { beatLength } from '$core/score/metre';
import type { TimeSignature } from '$core/score/score';
import { TICKS_PER_QUARTER } from '$core/score/ticks';

export type { TimeSignature };

/** A click for each beat of the metre, the first one accented. */
export function accentsOf(time: TimeSignature): Click['weight'][] {
  const measure = (time.beats * 4 * TICKS_PER_QUARTER) / time.beatType;
  const beats = Math.max(1, Math.round(measure / beatLength(time)));
  return Array.from({ length: beats }, (_, i) => (i === 0 ? 'measure' : 'beat'));
}
