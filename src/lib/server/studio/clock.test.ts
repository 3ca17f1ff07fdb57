import { expect, it } from 'vitest';
import { testStudio } from '../test/studio';
import { setZone, todayIn, weekdayToday, zoneOf } from './clock';

it('it is the day of the studio’s time zone, also at night', () => {
  const { db, end } = testStudio();
  const night = new Date('2026-11-26T23:30:00Z');
  expect(zoneOf(db)).toBe(Intl.DateTimeFormat().resolvedOptions().timeZone);
  setZone(db, 'Europe/Vienna');
  expect([todayIn(db, night), weekdayToday(db, night)]).toEqual(['2026-11-27', 5]);
  setZone(db, 'America/Lima');
  expect([todayIn(db, night), weekdayToday(db, night)]).toEqual(['2026-11-26', 4]);
  setZone(db, 'Atlantis/Harbour');
  expect(zoneOf(db)).not.toBe('Atlantis/Harbour');
  end();
});
