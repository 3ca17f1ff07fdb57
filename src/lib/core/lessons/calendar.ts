/** Days as a studio has them: an instant is another day, and another weekday, in another time zone. */
import { fromDate, parseDateTime, toCalendarDate, toTime, toZoned } from '@internationalized/date';

/** A day as "2026-11-26". */
export type Day = string;

/** Whether a name is that of a time zone that is known here ("Europe/Vienna"). */
export function isTimeZone(name: string): boolean {
  try {
    new Intl.DateTimeFormat('en', { timeZone: name });
    return true;
  } catch {
    return false;
  }
}

/** Every time zone that is known here, by name. */
export const timeZones = (): readonly string[] => Intl.supportedValuesOf('timeZone');

/** The day that an instant falls on in a time zone. */
export const dayIn = (timeZone: string, instant: Date): Day =>
  toCalendarDate(fromDate(instant, timeZone)).toString();

/** The weekday of a day: 1 Monday … 7 Sunday. */
export const weekdayOf = (day: Day): number => new Date(`${day}T00:00:00Z`).getUTCDay() || 7;

/** So many days after a day; before it where negative. */
export const daysAfter = (day: Day, days: number): Day =>
  new Date(Date.parse(`${day}T00:00:00Z`) + days * 86_400_000).toISOString().slice(0, 10);

/** The Monday of the week of a day. */
export const mondayOf = (day: Day): Day => daysAfter(day, 1 - weekdayOf(day));

/** The first day of the week of a day, for weeks that begin on a weekday (1 Monday … 7 Sunday). */
export const weekStart = (day: Day, firstDay: number): Day =>
  daysAfter(day, -((weekdayOf(day) - firstDay + 7) % 7));

/** Whole days from one to another. */
export const daysBetween = (from: Day, to: Day): number =>
  Math.round((Date.parse(to) - Date.parse(from)) / 86_400_000);

/**
 * The instant at which a clock in a time zone shows a time of a day ("16:30"). A time that a change of the clock leaves out is as much
 * later; one that comes twice is the first.
 */
export const instantOf = (timeZone: string, day: Day, time: string): Date =>
  toZoned(parseDateTime(`${day}T${time}`), timeZone, 'compatible').toDate();

/** The time that a clock in a time zone shows at an instant: "16:30". */
export const timeIn = (timeZone: string, instant: Date): string =>
  toTime(fromDate(instant, timeZone)).toString().slice(0, 'hh:mm'.length);
