/** Swung eighths: the second eighth of a beat comes at two thirds of it. Triplets stay where they are. */
import { beatLength, isCompound, placeInMeasure } from '../score/metre';
import type { Measure } from '../score/score';
import type { Ticks } from '../score/ticks';

/** Where a written tick of a measure is played when the measure swings. Only places on the grid of sixteenths move. */
export function swung(measure: Measure, tick: Ticks): Ticks {
  if (isCompound(measure.time)) return tick;
  const beat = beatLength(measure.time);
  const place = placeInMeasure(measure, tick);
  const inBeat = ((place % beat) + beat) % beat;
  if (inBeat === 0 || inBeat % (beat / 4) !== 0) return tick;
  const half = beat / 2;
  const played = inBeat <= half ? (inBeat * 4) / 3 : (beat * 2) / 3 + ((inBeat - half) * 2) / 3;
  return tick - inBeat + Math.round(played);
}
