/** Words that several screens share. */
import type { SeenIdiom } from '$core/analysis/idiom';
import { beatLength, isCompound } from '$core/score/metre';
import type { TimeSignature } from '$core/score/score';
import { writtenValue } from '$core/score/notate';
import { TICKS_PER_QUARTER } from '$core/score/ticks';

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

/** "4/4" */
export const metreText = (time: TimeSignature): string => `${time.beats}/${time.beatType}`;

/** "A march: its title says so." Nothing where a piece is of no kind. */
export const idiomText = ({ idiom, because }: SeenIdiom): string =>
  idiom === 'plain' ? '' : `A ${idiom}: ${because}.`;

/** A sentence begins with a capital. */
export const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

/** What a measure has otherwise than its model: "B4 instead of A4", "without D5", "D5 as well", or "held otherwise". */
export function differenceText(now: string, before: string): string {
  if (now && before) return `${now} instead of ${before}`;
  return now ? `${now} as well` : before ? `without ${before}` : 'held otherwise';
}

export { plural } from '$core/plural';
export { measuresText, measureText } from '$core/score/measureText';

/** "5 of 15 new measures with both hands" */
export const progressText = (piece: { bothHands: number; newMeasures: number }): string =>
  `${piece.bothHands} of ${piece.newMeasures} new measures with both hands`;

/** "23 Nov" */
export const shortDate = (iso: string): string =>
  new Date(`${iso.slice(0, 10)}T12:00:00`).toLocaleDateString('en-GB', { day: 'numeric', month: 'short' });

/** "23 Nov, 16:30", by the clock of whoever looks. */
export const momentText = (iso: string): string =>
  new Date(iso).toLocaleString('en-GB', {
    day: 'numeric',
    month: 'short',
    hour: '2-digit',
    minute: '2-digit',
  });

export const WEEKDAYS = [
  'Monday',
  'Tuesday',
  'Wednesday',
  'Thursday',
  'Friday',
  'Saturday',
  'Sunday',
] as const;

const REACH_NAMES: Readonly<Record<number, string>> = {
  7: 'a seventh',
  8: 'an octave',
  9: 'a ninth',
  10: 'a tenth',
};

export const reachName = (reach: number): string => REACH_NAMES[reach] ?? String(reach);
