import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { daysAfter } from './calendar';
import { estimateOf, minutesLeft, paceOf } from './estimate';
import type { Grade, LessonEvent } from './events';
import { learnedIn, measureStates, nextSteps, planState } from './progress';
import { dueOn, memoryOf, retention, reviewsOf } from './reviews';
import { chunksBy, GOAL, MUSIC, recorder } from '../test/lessonPiece';
import { weekOf } from './week';

const did = recorder();
const chunks = chunksBy('front to back');
const reviews = (events: readonly LessonEvent[]) => {
  const learned = learnedIn(MUSIC.ids, events);
  return reviewsOf(chunks, learned, measureStates(MUSIC.form, learned, GOAL), MUSIC.ids, GOAL);
};

describe('memory', () => {
  const grades = fc.array(fc.integer({ min: 1, max: 4 }), { minLength: 1, maxLength: 8 });
  it('is due later the better it went, and is then still there nine times in ten', () => {
    fc.assert(
      fc.property(grades, fc.integer({ min: 1, max: 3 }), (before, grade) => {
        const days = before.map((g, i) => ({ day: daysAfter('2026-01-01', i * 9), grade: g as Grade }));
        const after = (g: number) =>
          memoryOf([...days, { day: daysAfter('2026-01-01', before.length * 9), grade: g as Grade }])!;
        expect(after(grade + 1).due >= after(grade).due).toBe(true);
        const { due, last } = after(grade + 1);
        expect(due > last).toBe(true);
        expect(retention(after(grade), last)).toBeCloseTo(1);
      }),
    );
    const once = memoryOf([{ day: '2026-01-01', grade: 3 }])!;
    expect(retention(once, once.due)).toBeGreaterThan(0.85);
  });
  it('counts one grade a day, the last', () => {
    const twice = memoryOf([
      { day: '2026-01-01', grade: 1 },
      { day: '2026-01-01', grade: 4 },
    ])!;
    expect(twice).toEqual(memoryOf([{ day: '2026-01-01', grade: 4 }]));
  });
});

describe('reviews', () => {
  const all = (tempo: number, day = '2026-11-02'): LessonEvent[] =>
    chunks.map((c) => did({ chunk: c.id, step: 'ladder', tempo, day }));
  it('are of chunks that are learned with both hands', () => {
    expect(reviews([did({ step: 'right' })])).toEqual([]);
    expect(reviews([did({ grade: 1 })])).toEqual([]);
    expect(reviews([did({})]).map((r) => [r.chunk, r.isWhole])).toEqual([['m0..m3', false]]);
  });
  it('are of the whole piece once it is known, and of the chunk that went badly since', () => {
    expect(reviews(all(GOAL)).map((r) => [r.chunk, r.isWhole])).toEqual([['m0..m7', true]]);
    const bad = reviews([
      ...all(GOAL),
      did({ step: 'review', hand: 'both', grade: 1, day: '2026-11-20', chunk: 'm4..m7' }),
    ]);
    expect(bad.map((r) => r.chunk)).toEqual(['m0..m7', 'm4..m7']);
    const fine = did({
      step: 'review',
      hand: 'both',
      grade: 3,
      day: '2026-11-20',
      chunk: 'm4..m7',
    });
    expect(reviews([...all(GOAL), fine]).map((r) => r.chunk)).toEqual(['m0..m7']);
    const again = did({ step: 'review', hand: 'both', grade: 3, day: '2026-11-24', chunk: 'm0..m7' });
    expect(reviews([...all(GOAL), again])).toMatchObject([{ times: 2, last: '2026-11-24' }]);
  });
  it('are due the likeliest lost first, and few', () => {
    const events = [did({ grade: 4 }), did({ chunk: 'm4..m7', grade: 2 })];
    const due = dueOn(reviews(events), '2027-03-01', 5);
    expect(due.map((r) => r.chunk)).toEqual(['m4..m7', 'm0..m3']);
    expect(dueOn(reviews(events), '2027-03-01', 1)).toHaveLength(1);
    expect(dueOn(reviews(events), '2026-11-02', 5)).toEqual([]);
  });
});

describe('an estimate', () => {
  const states = (...events: LessonEvent[]) => planState(chunks, learnedIn(MUSIC.ids, events));
  it('is of what is left: less with every step, nothing at the end', () => {
    expect(minutesLeft(states(did({ step: 'right' })))).toBeLessThan(minutesLeft(states()));
    expect(minutesLeft(states(did({ step: 'ladder', tempo: 66 })))).toBeLessThan(
      minutesLeft(states(did({ step: 'both' }))),
    );
    expect(estimateOf(0, paceOf([], 75), 15, '2026-11-02', null)).toBeNull();
  });
  it('is corrected by the student’s own weeks, and narrows with them', () => {
    const usual = paceOf([], 75);
    expect(usual.pace).toBe(1);
    expect(paceOf([20, 20, 20, 20], 75).pace).toBeLessThan(0.7);
    expect(paceOf([150, 150, 150], 75).pace).toBeGreaterThan(1.4);
    expect(paceOf(Array(12).fill(75) as number[], 75).spread).toBeLessThan(usual.spread);
  });
  it('has a range around it, and meets a goal date or misses it', () => {
    const by = (date: string) => estimateOf(300, paceOf([], 75), 15, '2026-11-02', date)!;
    const { weeks, from, to } = by('2026-12-31');
    expect(weeks).toBe(4);
    expect([from < '2026-11-30', to > '2026-11-30']).toEqual([true, true]);
    expect([by(to).goal, by('2026-11-30').goal, by('2026-11-10').goal]).toEqual(['met', 'perhaps', 'missed']);
  });
});

describe('the week', () => {
  const next = nextSteps(planState(chunks, learnedIn(MUSIC.ids, [])), 6);
  const due = dueOn(reviews([did({}), did({ chunk: 'm4..m7' })]), '2027-01-01', 5);
  it('fits the minutes of a day, with few reviews', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 2, max: 90 }),
        fc.integer({ min: 0, max: 6 }),
        fc.boolean(),
        (minutes, steps, isDue) => {
          const pieces = ['a', 'b'].map((assignment) => ({
            assignment,
            next: next.slice(0, steps),
            due: isDue ? due : [],
          }));
          const week = weekOf(pieces, minutes);
          expect(week.reduce((sum, item) => sum + item.minutes, 0)).toBeLessThanOrEqual(minutes);
          expect(week.filter((i) => i.why === 'due').length).toBeLessThanOrEqual(3);
          expect(week.every((i) => i.minutes >= 1)).toBe(true);
          if (steps > 0 && minutes >= 8) expect(week.some((i) => i.why === 'next')).toBe(true);
          // What is not worth opening the book for is not set.
          if (minutes >= 12)
            for (const item of week) if (item.why === 'next') expect(item.minutes).toBeGreaterThanOrEqual(4);
        },
      ),
    );
  });
  it('takes one chunk of every piece before a second one', () => {
    const steps = [next[0]!, { ...next[0]!, chunk: chunks[1]! }];
    const week = weekOf(
      [
        { assignment: 'a', next: steps, due: [] },
        { assignment: 'b', next: steps, due: [] },
      ],
      30,
    );
    expect(week.map((i) => `${i.assignment} ${i.chunk}`)).toEqual(['a m0..m3', 'b m0..m3', 'a m4..m7']);
  });
});
