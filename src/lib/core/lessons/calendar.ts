/** Days as a studio has them: an instant is another day, and another weekday, in another time zone. */

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
export function dayIn(timeZone: string, instant: Date): Day {
  const parts = new Intl.DateTimeFormat('en', {
    timeZone,
    year: 'numeric',
    month: '2-digit',
    day: '2-digit',
  }).formatToParts(instant);
  const part = (type: Intl.DateTimeFormatPartTypes): string => parts.find((p) => p.type === type)!.value;
  return `${part('year')}-${part('month')}-${part('day')}`;
}

/** The weekday of a day: 1 Monday … 7 Sunday. */
export const weekdayOf = (day: Day): number => new Date(`${day}T00:00:00Z`).getUTCDay() || 7;

/** So many days after a day; before it where negative. */
export const daysAfter = (day: Day, days: number): Day =>
  new Date(Date.parse(`${day}T00:00:00Z`) + days * 86_400_000).toISOString().slice(0, 10);
