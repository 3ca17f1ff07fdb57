/** Words that several screens share. */
import { capital } from '$core/capital';
import type { SeenIdiom } from '$core/analysis/idiom';
import type { TimeSignature } from '$core/score/score';

export { tempoText, toBeats, toQuarters } from '$core/score/tempoText';

/** "4/4" */
export const metreText = (time: TimeSignature): string => `${time.beats}/${time.beatType}`;

/** "A march: its title says so." Nothing where a piece is of no kind. */
export const idiomText = ({ idiom, because }: SeenIdiom): string =>
  idiom === 'plain' ? '' : `A ${idiom}: ${because}.`;

export { capital } from '$core/capital';

/** "Left hand: leaps of a seventh, frequent shifts. Right hand: fast eighths." Nothing where there is no reason. */
export const reasonsText = (reasons: readonly string[]): string =>
  reasons.map((r) => `${capital(r)}.`).join(' ');

/** What a measure has otherwise than its model: "B4 instead of A4", "without D5", "D5 as well", or "held otherwise". */
export function differenceText(now: string, before: string): string {
  if (now && before) return `${now} instead of ${before}`;
  return now ? `also ${now}` : before ? `without ${before}` : 'different voicing';
}

export { plural } from '$core/plural';
export { measuresBetween, measuresText, measureText } from '$core/score/measureText';

/** "hands together: 5 of 15 measures" */
export const progressText = (piece: { bothHands: number; newMeasures: number }): string =>
  `hands together: ${piece.bothHands} of ${piece.newMeasures} measures`;

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

/** "Thursday 26 November" of a day, whatever clock the computer has. */
export const longDay = (day: string): string =>
  new Date(`${day}T12:00:00Z`).toLocaleDateString('en-GB', {
    timeZone: 'UTC',
    weekday: 'long',
    day: 'numeric',
    month: 'long',
  });

/** "16 to 20 December" or "28 December to 3 January": about when. */
export function spanText(from: string, to: string): string {
  const part = (day: string, options: Intl.DateTimeFormatOptions): string =>
    new Date(`${day}T12:00:00Z`).toLocaleDateString('en-GB', { timeZone: 'UTC', ...options });
  const whole = (day: string): string => part(day, { day: 'numeric', month: 'long' });
  if (from === to) return whole(from);
  return from.slice(0, 7) === to.slice(0, 7)
    ? `${part(from, { day: 'numeric' })} to ${whole(to)}`
    : `${whole(from)} to ${whole(to)}`;
}

/** What comes of an estimate against the day that was promised. */
export const GOAL_TEXTS = {
  met: 'on time',
  perhaps: 'may be on time',
  missed: 'not ready in time',
} as const;

/** "November 2026" of "2026-11". */
export const monthTitle = (month: string): string =>
  new Date(`${month}-15T12:00:00Z`).toLocaleDateString('en-GB', {
    timeZone: 'UTC',
    month: 'long',
    year: 'numeric',
  });
