/**
 * Swung eighths: the second eighth of a beat comes at two thirds of it, and so does the short note of a dotted pair, which is
 * another way to write the same. Triplets stay where they are.
 */
import { beatLength, isCompound, placeInMeasure } from '../../score/metre';
import type { Measure } from '../../score/score';
import type { Ticks } from '../../score/ticks';

/**
 * Where a written tick of a measure is played when the measure swings. Only places on the grid of sixteenths move; `struck` tells
 * at which ticks notes begin, by which a dotted pair is known.
 */
export function swung(measure: Measure, tick: Ticks, struck: ReadonlySet<Ticks>): Ticks {
  if (isCompound(measure.time)) return tick;
  const beat = beatLength(measure.time);
  const place = placeInMeasure(measure, tick);
  const inBeat = ((place % beat) + beat) % beat;
  if (inBeat === 0 || inBeat % (beat / 4) !== 0) return tick;
  const half = beat / 2;
  const from = tick - inBeat;
  const isDottedPair = inBeat === (beat * 3) / 4 && !struck.has(from + half) && !struck.has(from + beat / 4);
  if (isDottedPair) return from + Math.round((beat * 2) / 3);
  const played = inBeat <= half ? (inBeat * 4) / 3 : (beat * 2) / 3 + ((inBeat - half) * 2) / 3;
  return from + Math.round(played);
}
