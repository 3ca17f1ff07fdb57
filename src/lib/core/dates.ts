/** Days and times in words, as a studio writes them. Days are "2026-11-23", times "16:30", instants ISO. */
import type { Locale } from './locale';

const noon = (day: string): Date => new Date(`${day.slice(0, 10)}T12:00:00Z`);
/** A Monday, for the names of weekdays. */
const MONDAY = Date.UTC(2024, 0, 1, 12);
const DAY = 86_400_000;

interface Dates {
  readonly locale: Locale;
  /** "23 Nov" */
  readonly short: (iso: string) => string;
  /** "23 Nov, 16:30", by the clock of whoever looks. */
  readonly moment: (iso: string) => string;
  /** "Thursday 26 November" */
  readonly long: (day: string) => string;
  /** "26 November 2026" */
  readonly full: (day: string) => string;
  /** "16–20 Dec" or "28 Dec – 3 Jan": about when. */
  readonly span: (from: string, to: string) => string;
  /** "November 2026" of "2026-11". */
  readonly month: (month: string) => string;
  /** "16:30" or "4:30 PM" */
  readonly time: (time: string) => string;
  /** "Monday" of 1. */
  readonly weekday: (weekday: number) => string;
  /** "Mon" of 1. */
  readonly shortWeekday: (weekday: number) => string;
  /** Numbers of the weekdays, the first of the studio's week first. */
  readonly week: readonly number[];
  /** "1,234" */
  readonly number: (value: number) => string;
}

/** The formats of a studio. Each is made once: they are asked for hundreds of times on a page. */
export function datesIn(locale: Locale): Dates {
  const { language, firstDay, hours } = locale;
  const hourCycle = hours === 12 ? ('h12' as const) : ('h23' as const);
  const inUtc = (options: Intl.DateTimeFormatOptions): Intl.DateTimeFormat =>
    new Intl.DateTimeFormat(language, { timeZone: 'UTC', ...options });
  const short = inUtc({ day: 'numeric', month: 'short' });
  const moment = new Intl.DateTimeFormat(language, {
    day: 'numeric',
    month: 'short',
    hour: hours === 12 ? 'numeric' : '2-digit',
    minute: '2-digit',
    hourCycle,
  });
  const long = inUtc({ weekday: 'long', day: 'numeric', month: 'long' });
  const full = inUtc({ day: 'numeric', month: 'long', year: 'numeric' });
  const month = inUtc({ month: 'long', year: 'numeric' });
  const time = inUtc({ hour: hours === 12 ? 'numeric' : '2-digit', minute: '2-digit', hourCycle });
  const [weekday, shortWeekday] = [inUtc({ weekday: 'long' }), inUtc({ weekday: 'short' })];
  const number = new Intl.NumberFormat(language);
  return {
    locale,
    short: (iso) => short.format(noon(iso)),
    moment: (iso) => moment.format(new Date(iso)),
    long: (day) => long.format(noon(day)),
    full: (day) => full.format(noon(day)),
    span: (from, to) => (from === to ? short.format(noon(from)) : short.formatRange(noon(from), noon(to))),
    month: (of) => month.format(noon(`${of}-15`)),
    time: (of) => time.format(new Date(`2024-01-01T${of}:00Z`)),
    weekday: (n) => weekday.format(MONDAY + (n - 1) * DAY),
    shortWeekday: (n) => shortWeekday.format(MONDAY + (n - 1) * DAY),
    week: Array.from({ length: 7 }, (_, i) => ((firstDay - 1 + i) % 7) + 1),
    number: (value) => number.format(value),
  };
}
