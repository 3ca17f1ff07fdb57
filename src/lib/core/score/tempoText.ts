/** Tempi in the beat of a metre, and in words. */
import { beatLength, isCompound } from './metre';
import { writtenValue } from './notate';
import type { TimeSignature } from './score';
import { TICKS_PER_QUARTER } from './ticks';

const BEAT_SIGNS: Readonly<Record<number, string>> = { 2: '𝅗𝅥', 4: '♩', 8: '♪' };

/** Quarter notes per minute as beats per minute of a metre. */
export const toBeats = (time: TimeSignature, quarters: number): number =>
  Math.round((quarters * TICKS_PER_QUARTER) / beatLength(time));

/** Beats per minute back to quarter notes per minute. */
export const toQuarters = (time: TimeSignature, beats: number): number =>
  Math.round((beats * beatLength(time)) / TICKS_PER_QUARTER);

/** "♩ = 84" in the beat of the metre. */
export function tempoText(time: TimeSignature, quarters: number): string {
  const sign = BEAT_SIGNS[writtenValue(beatLength(time))?.type ?? 4] ?? '♩';
  return `${sign}${isCompound(time) ? '.' : ''} = ${toBeats(time, quarters)}`;
}
