import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { daysAfter, daysBetween, instantOf, timeIn, weekdayOf } from './calendar';
import { fromDayOn, isGiven, occurrences, type Slot, type SlotChange } from './slots';

// 26 November 2026 is a Thursday.
const SLOT: Slot = {
  id: 's',
  whose: 'runa',
  weekday: 4,
  time: '16:30',
  minutes: 30,
  from: '2026-11-01',
  until: null,
};
const days = (
  slots: readonly Slot[],
  changes: readonly SlotChange[] = [],
  holidays: { from: string; to: string; name: string }[] = [],
) => occurrences(slots, changes, holidays, '2026-11-01', '2026-12-31');

describe('weekly lessons', () => {
  it('come on their weekday, from their first day to their last', () => {
    expect(days([SLOT]).map((o) => o.day)).toEqual(
      ['11-05', '11-12', '11-19', '11-26', '12-03', '12-10', '12-17', '12-24', '12-31'].map(
        (d) => `2026-${d}`,
      ),
    );
    expect(days([{ ...SLOT, from: '2026-11-13', until: '2026-11-26' }]).map((o) => o.day)).toEqual([
      '2026-11-19',
      '2026-11-26',
    ]);
  });
  it('are moved, cancelled and doubled once', () => {
    const at = (change: Omit<SlotChange, 'slot' | 'day'>) =>
      days([SLOT], [{ slot: 's', day: '2026-11-12', ...change }]).find((o) => o.usual === '2026-11-12')!;
    expect(at({ kind: 'moved', toDay: '2026-11-14', toTime: '10:00' })).toMatchObject({
      day: '2026-11-14',
      time: '10:00',
      state: 'moved',
    });
    expect(isGiven(at({ kind: 'cancelled' }))).toBe(false);
    expect(at({ kind: 'doubled' }).minutes).toBe(60);
  });
  it('are seen where they were moved to, also from another month', () => {
    const moved: SlotChange = {
      slot: 's',
      day: '2026-11-26',
      kind: 'moved',
      toDay: '2027-01-02',
      toTime: '09:00',
    };
    expect(occurrences([SLOT], [moved], [], '2027-01-01', '2027-01-03')).toMatchObject([
      { day: '2027-01-02', usual: '2026-11-26' },
    ]);
  });
  it('are not given in holidays, unless moved there on purpose', () => {
    const holiday = [{ from: '2026-12-20', to: '2027-01-06', name: 'Winter' }];
    const out = days([SLOT], [{ slot: 's', day: '2026-12-24', kind: 'moved', toDay: '2026-12-22' }], holiday);
    expect(out.find((o) => o.usual === '2026-12-31')).toMatchObject({ state: 'holiday', because: 'Winter' });
    expect(isGiven(out.find((o) => o.usual === '2026-12-24')!)).toBe(true);
  });
  it('change from a day on without changing what was before', () => {
    const { ends, begins } = fromDayOn(SLOT, '2026-12-01', { weekday: 2, time: '09:15' }, 's2');
    expect(
      days([ends, begins!])
        .map((o) => `${o.day} ${o.time}`)
        .slice(3, 6),
    ).toEqual(['2026-11-26 16:30', '2026-12-01 09:15', '2026-12-08 09:15']);
    expect(fromDayOn(SLOT, '2026-12-01', null, 's2').begins).toBeNull();
  });
  it('are the same however a span is cut', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 80 }), fc.integer({ min: 1, max: 7 }), (cut, weekday) => {
        const slot = { ...SLOT, weekday };
        const at = daysAfter('2026-11-01', cut);
        const all = occurrences([slot], [], [], '2026-11-01', '2027-02-01');
        const parts = [
          ...occurrences([slot], [], [], '2026-11-01', at),
          ...occurrences([slot], [], [], daysAfter(at, 1), '2027-02-01'),
        ];
        expect(parts).toEqual(all);
        expect(all.every((o) => weekdayOf(o.day) === weekday)).toBe(true);
      }),
    );
  });
});

describe('the instant of a time of day', () => {
  it('is that of the studio’s clock, also where it changes', () => {
    expect(instantOf('Europe/Vienna', '2026-11-26', '16:30').toISOString()).toBe('2026-11-26T15:30:00.000Z');
    expect(instantOf('Europe/Vienna', '2026-07-02', '16:30').toISOString()).toBe('2026-07-02T14:30:00.000Z');
    expect(instantOf('Pacific/Auckland', '2026-11-26', '09:00').toISOString()).toBe(
      '2026-11-25T20:00:00.000Z',
    );
    expect(instantOf('America/St_Johns', '2026-11-26', '09:00').toISOString()).toBe(
      '2026-11-26T12:30:00.000Z',
    );
    // Left out in spring: as much later. Twice in autumn: the first.
    expect(instantOf('Europe/Vienna', '2026-03-29', '02:30').toISOString()).toBe('2026-03-29T01:30:00.000Z');
    expect(instantOf('Europe/Vienna', '2026-10-25', '02:30').toISOString()).toBe('2026-10-25T00:30:00.000Z');
  });
  it('shows the same time again, on every day of a year and in every zone', () => {
    const zones = [
      'Europe/Vienna',
      'America/New_York',
      'Australia/Lord_Howe',
      'Asia/Kathmandu',
      'Africa/Casablanca',
    ];
    fc.assert(
      fc.property(
        fc.constantFrom(...zones),
        fc.nat(730),
        fc.integer({ min: 5, max: 22 }),
        (zone, n, hour) => {
          const time = `${String(hour).padStart(2, '0')}:15`;
          const instant = instantOf(zone, daysAfter('2026-01-01', n), time);
          expect(timeIn(zone, instant)).toBe(time);
        },
      ),
    );
    expect(daysBetween('2026-02-27', '2026-03-02')).toBe(3);
  });
});
