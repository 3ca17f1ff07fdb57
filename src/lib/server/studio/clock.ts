/** Which day it is in the studio: the one place that says so. */
import { dayIn, isTimeZone, weekdayOf, type Day } from '$core/lessons/calendar';
import { merged } from '$core/edits/merge';
import { atomically, type Db } from '../db/open';
import { studio } from '../db/schema';

/** The studio's time zone; where none is chosen, that of the computer that serves it. */
export function zoneOf(db: Db): string {
  const chosen = db.select({ zone: studio.timeZone }).from(studio).get()?.zone;
  return chosen && isTimeZone(chosen) ? chosen : Intl.DateTimeFormat().resolvedOptions().timeZone;
}

/** Changes the time zone from what it was; where another window has changed it to another one, that comes back. */
export const changeZone = (db: Db, timeZone: string, was: string | undefined): string | null =>
  atomically(db, (tx) => {
    const zone = zoneOf(tx);
    const { conflicts } = merged({ zone: was ?? zone }, { zone }, { zone: timeZone });
    if (conflicts.length > 0) return zone;
    setZone(tx, timeZone);
    return null;
  });

/** Keeps the studio's time zone; null goes back to the computer's. */
export function setZone(db: Db, timeZone: string | null): void {
  if (db.select({ id: studio.id }).from(studio).get()) db.update(studio).set({ timeZone }).run();
  else db.insert(studio).values({ id: 1, name: 'Your studio', timeZone }).run();
}

export const todayIn = (db: Db, now = new Date()): Day => dayIn(zoneOf(db), now);

/** 1 Monday … 7 Sunday. */
export const weekdayToday = (db: Db, now = new Date()): number => weekdayOf(todayIn(db, now));
