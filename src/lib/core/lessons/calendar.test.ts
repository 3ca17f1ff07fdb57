import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { dayIn, daysAfter, isTimeZone, timeZones, weekdayOf } from './calendar';

describe('the day of an instant', () => {
  it('is that of the studio, not that of the meridian', () => {
    const night = new Date('2026-11-26T23:30:00Z');
    expect(dayIn('UTC', night)).toBe('2026-11-26');
    expect(dayIn('Europe/Vienna', night)).toBe('2026-11-27');
    expect(dayIn('America/Los_Angeles', night)).toBe('2026-11-26');
    expect(dayIn('Pacific/Auckland', new Date('2026-11-26T12:00:00Z'))).toBe('2026-11-27');
  });
  it('is right on both sides of a change of the clock', () => {
    expect(dayIn('Europe/Vienna', new Date('2026-03-28T22:59:00Z'))).toBe('2026-03-28');
    expect(dayIn('Europe/Vienna', new Date('2026-03-28T23:01:00Z'))).toBe('2026-03-29');
    expect(dayIn('Europe/Vienna', new Date('2026-03-29T21:59:00Z'))).toBe('2026-03-29');
    expect(dayIn('Europe/Vienna', new Date('2026-03-29T22:01:00Z'))).toBe('2026-03-30');
  });
  it('knows weekdays, and days after and before', () => {
    expect(['2026-11-26', '2026-11-29', '2026-11-30'].map(weekdayOf)).toEqual([4, 7, 1]);
    expect([daysAfter('2026-02-27', 2), daysAfter('2026-03-01', -1)]).toEqual(['2026-03-01', '2026-02-28']);
    fc.assert(
      fc.property(fc.integer({ min: -4000, max: 4000 }), (n) => {
        const day = daysAfter('2026-11-26', n);
        expect(daysAfter(day, -n)).toBe('2026-11-26');
        expect((((weekdayOf(day) - 4 - n) % 7) + 7) % 7).toBe(0);
      }),
    );
  });
  it('knows which time zones there are', () => {
    expect(isTimeZone('Europe/Vienna')).toBe(true);
    expect(isTimeZone('Atlantis/Harbour')).toBe(false);
    expect(timeZones()).toContain('Europe/Vienna');
  });
});
