import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { daysAfter, mondayOf, type Day } from '$core/lessons/calendar';
import { LOOK_BACK } from '$core/lessons/estimate';
import type { History } from '$core/lessons/history';
import { weeksOf } from './learnerPage';
import type { LessonRow } from './lessons';
import { estimates, paceFrom, weeklyGains } from './pace';
import type { AssignmentLine, BrokenLine } from './progress';

const TODAY = '2026-11-26';
const history = (facts: Partial<History>): History =>
  ({ weeks: [], tempi: [], reviews: [], ...facts }) as unknown as History;
const gained = (monday: Day, minutes: number, measures = 0): History =>
  history({ weeks: [{ monday, minutes, measures }] });
const lesson = (date: Day, facts: Partial<LessonRow> = {}): LessonRow =>
  ({ date, minutesSet: null, practised: null, ...facts }) as LessonRow;
const lastMonday = (weeks: number): Day => daysAfter(mondayOf(TODAY), -7 * weeks);

describe('what a student gains by the week', () => {
  it('begins with the first week in which there was something, and leaves out the one that goes on', () => {
    const gains = weeklyGains(
      [gained(lastMonday(3), 40), gained(lastMonday(1), 20), gained(lastMonday(0), 99)],
      TODAY,
    );
    expect(gains).toEqual([40, 0, 20]);
    expect(weeklyGains([], TODAY)).toEqual([]);
    expect(weeklyGains([gained(lastMonday(0), 10)], TODAY)).toEqual([]);
  });
  it('adds up all pieces of a week', () =>
    expect(weeklyGains([gained(lastMonday(1), 12), gained(lastMonday(1), 13)], TODAY)).toEqual([25]));
  it('looks back on a term and no further', () => {
    const long = Array.from({ length: 40 }, (_, i) => gained(lastMonday(i + 1), i + 1));
    expect(weeklyGains(long, TODAY)).toEqual(Array.from({ length: LOOK_BACK }, (_, i) => LOOK_BACK - i));
  });
  it('law: who gains what they have minutes for goes at the usual pace, whatever the minutes', () =>
    fc.assert(
      fc.property(fc.integer({ min: 5, max: 60 }), fc.integer({ min: 1, max: 12 }), (minutes, weeks) => {
        const even = Array.from({ length: weeks }, (_, i) => gained(lastMonday(i + 1), minutes * 5));
        expect(paceFrom(even, minutes, TODAY).pace).toBeCloseTo(1, 6);
      }),
    ));
});

describe('when each piece will be ready', () => {
  const line = (id: string, facts: Partial<AssignmentLine> = {}): AssignmentLine =>
    ({ id, status: 'learning', left: 150, goalDate: null, ...facts }) as AssignmentLine;
  const usual = { pace: 1, spread: 0.3, weeks: 4 };
  it('a piece alone has all the minutes of the day', () =>
    // 150 minutes at 15 a day on five days are two weeks.
    expect(estimates([line('a')], usual, 15, TODAY).get('a')!.weeks).toBeCloseTo(2));
  it('the current piece has twice the minutes of each other, and all of them make the day', () => {
    const found = estimates([line('a'), line('b'), line('c')], usual, 20, TODAY);
    const perWeek = [...found.values()].map((e) => 150 / e.weeks);
    expect(perWeek[0]! / perWeek[1]!).toBeCloseTo(2);
    expect(perWeek[1]).toBeCloseTo(perWeek[2]!);
    expect(perWeek.reduce((a, b) => a + b, 0)).toBeCloseTo(20 * 5);
  });
  it('what is known, rests or cannot be shown takes no minutes and has no day', () => {
    const broken: BrokenLine = { id: 'x', learnerId: 'l', title: 'Gone', problem: 'It cannot be read.' };
    const found = estimates(
      [line('k', { status: 'known' }), broken, line('a'), line('r', { status: 'resting' })],
      usual,
      15,
      TODAY,
    );
    expect([...found.keys()]).toEqual(['a']);
    expect(found.get('a')!.weeks).toBeCloseTo(2);
  });
  it('what was given and not begun is learned, too', () =>
    expect(estimates([line('n', { status: 'new' })], usual, 15, TODAY).has('n')).toBe(true));
});

describe('the weeks of a student', () => {
  it('are sixteen Mondays in a row up to this one', () => {
    const weeks = weeksOf([], [], 5, TODAY);
    expect(weeks).toHaveLength(16);
    expect(weeks.at(-1)!.monday).toBe(mondayOf(TODAY));
    weeks.slice(1).forEach((w, i) => expect(w.monday).toBe(daysAfter(weeks[i]!.monday, 7)));
    expect(weeks.every((w) => w.set === null && w.practised === null && w.measures === 0)).toBe(true);
  });
  it('have what came of all pieces, and how often something was played again', () => {
    const weeks = weeksOf(
      [
        gained(lastMonday(1), 10, 3),
        history({
          weeks: [{ monday: lastMonday(1), minutes: 5, measures: 2 }],
          reviews: [{ monday: lastMonday(2), count: 4 }],
        }),
      ],
      [],
      5,
      TODAY,
    );
    expect(weeks.at(-2)).toMatchObject({ measures: 5, reviews: 0 });
    expect(weeks.at(-3)).toMatchObject({ measures: 0, reviews: 4 });
  });
  it('what was set at a lesson is of its week, what is said at the next was practised in it', () => {
    const lessons = [
      lesson(daysAfter(lastMonday(2), 1), { minutesSet: 15, practised: 30 }),
      // A lesson on a Monday is of the week that begins with it, and what was practised of the one before.
      lesson(lastMonday(1), { minutesSet: 20, practised: 60 }),
    ];
    const weeks = weeksOf([], lessons, 5, TODAY);
    expect(weeks.at(-4)).toMatchObject({ set: null, practised: 30 });
    expect(weeks.at(-3)).toMatchObject({ set: 75, practised: 60 });
    expect(weeks.at(-2)).toMatchObject({ set: 100, practised: null });
  });
});
