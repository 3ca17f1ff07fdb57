/** Lessons as iCalendar (RFC 5545), each at its own instant: right in every time zone and over every change of the clock. */
import { daysAfter, instantOf, type Day } from '$core/lessons/calendar';
import { createEvents, type EventAttributes } from 'ics';
import type { Db } from '../db/open';
import { isGiven } from '$core/lessons/slots';
import { todayIn, zoneOf } from './clock';
import { studio } from '../db/schema';
import { isThere, lessonsBetween } from './slots';

/** The calendar of the studio, or of one student or class; null where there is no such one. Runs in the pool. */
export function studioCalendar(db: Db, of: string | null): string | null {
  if (of !== null && !isThere(db, `learner ${of}`) && !isThere(db, `class ${of}`)) return null;
  const name = db.select({ name: studio.name }).from(studio).get()?.name ?? 'Piano lessons';
  return calendarText(db, name, of ?? undefined);
}

/** Days before and after today that the file holds. */
const BEFORE = 31;
const AFTER = 366;

/** The lessons of a learner, of a class, or all; those that are cancelled say so, so that calendars take them out. */
export function calendarText(db: Db, name: string, whose?: string, today: Day = todayIn(db)): string {
  const zone = zoneOf(db);
  const events = lessonsBetween(db, daysAfter(today, -BEFORE), daysAfter(today, AFTER))
    .filter((l) => whose === undefined || l.learnerId === whose || l.groupId === whose)
    .map((lesson): EventAttributes => {
      const start = instantOf(zone, lesson.day, lesson.time);
      return {
        // The same lesson keeps its name when it is moved.
        uid: `${lesson.slot}-${lesson.usual}@keypath`,
        title: `Piano, ${lesson.name}`,
        start: start.getTime(),
        startInputType: 'utc',
        startOutputType: 'utc',
        duration: { minutes: lesson.minutes },
        status: isGiven(lesson) ? 'CONFIRMED' : 'CANCELLED',
        ...(lesson.because ? { description: lesson.because } : {}),
        busyStatus: isGiven(lesson) ? 'BUSY' : 'FREE',
        calName: name,
        productId: 'keypath/lessons',
      };
    });
  // A calendar without events is one all the same; the library makes none of nothing.
  if (events.length === 0)
    return `BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:keypath/lessons\r\nMETHOD:PUBLISH\r\nEND:VCALENDAR\r\n`;
  const { error, value } = createEvents(events);
  if (error || !value) throw error ?? new Error('The calendar could not be written.');
  return value;
}
