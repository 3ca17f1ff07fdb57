/** Words that several screens share. */
import { capital } from '$core/capital';
import { datesIn } from '$core/dates';
import { USUAL_LOCALE, type Locale } from '$core/locale';
import { nameNotesAs } from '$core/theory/noteNames';
import type { SeenIdiom } from '$core/analysis/idiom';
import { IDIOMS } from '$core/analysis/idioms';
import type { TimeSignature } from '$core/score/score';

export { tempoText, toBeats, toQuarters } from '$core/score/tempoText';

/** "4/4" */
export const metreText = (time: TimeSignature): string => `${time.beats}/${time.beatType}`;

/** "A march: its title says so." Nothing where a piece is of no kind. */
export const idiomText = ({ idiom, because }: SeenIdiom): string =>
  idiom === 'plain' ? '' : `${IDIOMS[idiom].name}: ${because}.`;

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
export { placesText } from '$core/score/places';
export { measuresBetween, measuresText, measureText } from '$core/score/measureText';

/** "hands together: 5 of 15 measures" */
export const progressText = (piece: { bothHands: number; newMeasures: number }): string =>
  `hands together: ${piece.bothHands} of ${piece.newMeasures} measures`;

/** How this studio writes dates: said by the page before anything is shown, and by the server before it answers. One studio, one way. */
let dates = datesIn(USUAL_LOCALE);
export function speakAs(locale: Locale): void {
  if (JSON.stringify(locale) !== JSON.stringify(dates.locale)) dates = datesIn(locale);
  nameNotesAs(locale.noteNames);
}
/** The studio's locale, for form fields. */
export const localeNow = (): Locale => dates.locale;

/** "23 Nov" */
export const shortDate = (iso: string): string => dates.short(iso);
/** "23 Nov, 16:30", by the clock of whoever looks. */
export const momentText = (iso: string): string => dates.moment(iso);
/** "Thursday 26 November" of a day, whatever clock the computer has. */
export const longDay = (day: string): string => dates.long(day);
/** "16–20 Dec": about when. */
export const spanText = (from: string, to: string): string => dates.span(from, to);
/** "November 2026" of "2026-11". */
export const monthTitle = (month: string): string => dates.month(month);
/** "16:30" or "4:30 PM" of "16:30". */
export const timeText = (time: string): string => dates.time(time);
/** "Monday" of 1. */
export const weekdayName = (weekday: number): string => dates.weekday(weekday);
/** "Mon" of 1. */
export const shortWeekday = (weekday: number): string => dates.shortWeekday(weekday);
/** Numbers of the weekdays, the first of the studio's week first. */
export const weekdays = (): readonly number[] => dates.week;
/** "1,234" */
export const numberText = (value: number): string => dates.number(value);

const REACH_NAMES: Readonly<Record<number, string>> = {
  7: 'a seventh',
  8: 'an octave',
  9: 'a ninth',
  10: 'a tenth',
};

export const reachName = (reach: number): string => REACH_NAMES[reach] ?? String(reach);

/** What comes of an estimate against the day that was promised. */
export const GOAL_TEXTS = {
  met: 'on time',
  perhaps: 'may be on time',
  missed: 'not ready in time',
} as const;
