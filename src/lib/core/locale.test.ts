import { describe, expect, it } from 'vitest';
import { datesIn } from './dates';
import { isLanguage, LANGUAGES, localeSchema, proposedLocale, USUAL_LOCALE } from './locale';

describe('what is proposed from a language', () => {
  it.each([
    ['en-US', { firstDay: 7, hours: 12, noteNames: 'letters', paper: 'letter' }],
    ['en-GB', { firstDay: 1, hours: 24, noteNames: 'letters', paper: 'a4' }],
    ['de-AT', { firstDay: 1, hours: 24, noteNames: 'german', paper: 'a4' }],
    ['fr-CA', { firstDay: 7, hours: 24, noteNames: 'solfege', paper: 'letter' }],
    ['es-ES', { firstDay: 1, hours: 24, noteNames: 'solfege', paper: 'a4' }],
  ])('%s', (tag, wanted) => {
    expect(proposedLocale(tag)).toEqual({ language: tag, ...wanted });
  });
  it('is as usual for what is no language', () => {
    expect(proposedLocale('not a tag')).toEqual(USUAL_LOCALE);
    expect(isLanguage('')).toBe(false);
    expect(localeSchema.safeParse({ ...USUAL_LOCALE, language: 'x y' }).success).toBe(false);
  });
  it('can be kept for every language that is offered', () => {
    for (const tag of LANGUAGES) expect(localeSchema.safeParse(proposedLocale(tag)).success).toBe(true);
  });
});

describe('dates as a studio writes them', () => {
  const plain = (text: string): string => text.replace(/[\u202f\u00a0\u2009]/g, ' ');
  it('in British and American English', () => {
    const [gb, us] = [datesIn(USUAL_LOCALE), datesIn(proposedLocale('en-US'))];
    expect([gb, us].map((d) => d.short('2026-11-23'))).toEqual(['23 Nov', 'Nov 23']);
    expect([gb, us].map((d) => plain(d.time('16:30')))).toEqual(['16:30', '4:30 PM']);
    expect([gb, us].map((d) => plain(d.time('00:05')))).toEqual(['00:05', '12:05 AM']);
    expect(gb.week).toEqual([1, 2, 3, 4, 5, 6, 7]);
    expect(us.week).toEqual([7, 1, 2, 3, 4, 5, 6]);
    expect([gb, us].map((d) => d.month('2026-11'))).toEqual(['November 2026', 'November 2026']);
    expect(us.long('2026-11-26')).toBe('Thursday, November 26');
  });
  it('in another language, and over a turn of the month', () => {
    const de = datesIn(proposedLocale('de-DE'));
    expect(de.weekday(1)).toBe('Montag');
    expect(de.full('2026-12-01')).toBe('1. Dezember 2026');
    expect(plain(datesIn(USUAL_LOCALE).span('2026-12-28', '2027-01-03'))).toMatch(/28 Dec.*3 Jan/);
    expect(plain(datesIn(USUAL_LOCALE).span('2026-12-16', '2026-12-20'))).toMatch(/^16 ?– ?20 Dec$/);
  });
});
