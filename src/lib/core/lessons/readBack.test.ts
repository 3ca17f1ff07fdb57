/**
 * What is computed from the events, read back by a reader of its own that asks each question of all events anew, in the words of a
 * teacher: slow, plain, and knowing nothing of how the other does it.
 */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { daysAfter } from './calendar';
import { estimateOf, minutesLeft, paceOf } from './estimate';
import { edgesOf } from './chunkId';
import { holding, type Grade, type LessonEvent } from './events';
import { historyOf } from './history';
import { gainsOf, learnedIn, measureStates, nextSteps, planState, type MeasureState } from './progress';
import { REVIEW, STEPS } from './steps';
import { chunksBy, GOAL, MUSIC, recorder } from '../test/lessonPiece';

const { ids, form } = MUSIC;
const CHUNKS = chunksBy('front to back');
const STEP_IDS = [...STEPS.map((s) => s.id), REVIEW];

/** What a teacher may write down in some weeks: steps of chunks and of ranges, graded or not, some taken back, some of those again. */
const recordOf = (steps: readonly string[], least: number, most: number) =>
  fc
    .array(
      fc.record({
        from: fc.nat(11),
        length: fc.nat(3),
        step: fc.constantFrom(...steps),
        tempo: fc.option(fc.integer({ min: 30, max: 100 }), { freq: 4 }),
        grade: fc.constantFrom<(Grade | null)[]>(null, null, 1, 2, 3, 4),
        day: fc.integer({ min: 1, max: 28 }),
        withdraws: fc.option(fc.nat(30), { freq: 4, nil: null }),
      }),
      { minLength: least, maxLength: most },
    )
    .map((rows) => {
      const write = recorder();
      const days = rows.map((r) => r.day).sort((a, b) => a - b);
      return rows.map(({ from, length, step, tempo, grade, withdraws }, i): LessonEvent => {
        const day = `2026-11-${String(days[i]).padStart(2, '0')}`;
        // Only what stands already can be taken back.
        if (withdraws !== null && i > 0) return write({ day, withdraws: 1 + (withdraws % i) });
        return write({ day, step, tempo, grade, chunk: `${ids[from]}..${ids[Math.min(11, from + length)]}` });
      });
    });
const written = recordOf(STEP_IDS, 0, 40);
/** So much of few steps that whole chunks come together out of ranges. */
const dense = recordOf(['both', 'ladder'], 30, 60);

/** Whether an event holds: nothing that itself holds takes it back. */
const holds = (event: LessonEvent, all: readonly LessonEvent[]): boolean =>
  !all.some((other) => other.withdraws === event.id && holds(other, all));

/** Gained events that hold and cover a measure, or one that is note for note the same. */
const about = (measure: number, all: readonly LessonEvent[]): LessonEvent[] =>
  all.filter((event) => {
    if (event.withdraws !== null || event.grade === 1 || !holds(event, all)) return false;
    const [from, to] = edgesOf(event.chunk).map((id) => ids.indexOf(id)) as [number, number];
    return form.firstSeen.some((first, i) => first === form.firstSeen[measure] && i >= from && i <= to);
  });

/** In one copy of a measure both hands must have come, be it one after the other. */
function stateSaid(measure: number, all: readonly LessonEvent[]): MeasureState {
  const copies = ids.flatMap((_, i) => (form.firstSeen[i] === form.firstSeen[measure] ? [i] : []));
  const inCopy = (copy: number): LessonEvent[] =>
    about(measure, all).filter((event) => {
      const [from, to] = edgesOf(event.chunk).map((id) => ids.indexOf(id)) as [number, number];
      return copy >= from && copy <= to && event.step !== REVIEW && event.hand !== null;
    });
  const said = copies.map((copy): MeasureState => {
    const events = inCopy(copy);
    if (events.some((e) => e.step === 'memory' || (e.step === 'ladder' && (e.tempo ?? 0) >= GOAL)))
      return 'goal';
    const hands = new Set(events.map((e) => e.hand));
    if (hands.has('both') || (hands.has('right') && hands.has('left'))) return 'both';
    return hands.has('right') ? 'right' : hands.has('left') ? 'left' : 'open';
  });
  const order: MeasureState[] = ['goal', 'both', 'right', 'left', 'open'];
  return order.find((state) => said.includes(state))!;
}

const statesOf = (events: readonly LessonEvent[]): MeasureState[] =>
  measureStates(form, learnedIn(ids, events), GOAL);

describe('read back by another reader', () => {
  it('the same events hold', () =>
    fc.assert(
      fc.property(written, (events) => {
        expect(holding(events).map((e) => e.id)).toEqual(
          events.filter((e) => e.withdraws === null && holds(e, events)).map((e) => e.id),
        );
      }),
    ));
  it('every measure is as far as the events say', () =>
    fc.assert(
      fc.property(written, (events) => {
        expect(statesOf(events)).toEqual(ids.map((_, i) => stateSaid(i, events)));
      }),
    ));
  it('a step is done where it was gained in each measure of its chunk, a ladder at its top in each', () =>
    fc.assert(
      fc.property(fc.oneof(written, dense), (events) => {
        const plain = events.filter((e) => e.withdraws === null && e.grade !== 1 && holds(e, events));
        const gainedIn = (measure: number, step: string): LessonEvent[] =>
          plain.filter((e) => {
            const [from, to] = edgesOf(e.chunk).map((id) => ids.indexOf(id)) as [number, number];
            return e.step === step && measure >= from && measure <= to;
          });
        for (const { chunk, steps } of planState(CHUNKS, learnedIn(ids, events)))
          for (const step of steps) {
            const measures = ids.map((_, i) => i).filter((i) => i >= chunk.from && i <= chunk.to);
            const isDone = measures.every((m) =>
              gainedIn(m, step.id).some(
                (e) => step.tempi !== 'ladder' || (e.tempo ?? 0) >= (step.ladder.at(-1) ?? 0),
              ),
            );
            expect(step.done !== null).toBe(isDone);
            // The tempo of a chunk is that of its slowest measure, each at its best; unknown where one was never measured.
            const best = measures.map((m) => Math.max(0, ...gainedIn(m, step.id).map((e) => e.tempo ?? 0)));
            expect(step.tempo).toBe(best.every((tempo) => tempo > 0) ? Math.min(...best) : null);
          }
      }),
    ));
  it('a measure came to both hands in the week in which it first stood so', () =>
    fc.assert(
      fc.property(written, (events) => {
        // What was taken back later counts nowhere, so the days are those of what holds.
        const kept = holding(events);
        const weeks = historyOf(CHUNKS, learnedIn(ids, kept), form, [], () => true, GOAL).weeks;
        const learned = ids.filter(
          (_, i) => form.firstSeen[i] === i && ['both', 'goal'].includes(stateSaid(i, kept)),
        );
        expect(weeks.reduce((sum, w) => sum + w.measures, 0)).toBe(learned.length);
        for (const { monday } of weeks) expect(new Date(`${monday}T12:00:00Z`).getUTCDay()).toBe(1);
      }),
    ));
});

describe('laws of a record', () => {
  it('what is taken back is as if it had not been, in whatever order it is read', () =>
    fc.assert(
      fc.property(written, fc.nat(), (events, seed) => {
        const last = events.findLast((e) => e.withdraws === null);
        fc.pre(last !== undefined && holds(last, events));
        const takenBack = [...events, { ...last!, id: 1000, withdraws: last!.id }];
        const without = events.filter((e) => e.id !== last!.id && e.withdraws !== last!.id);
        expect(statesOf(takenBack)).toEqual(statesOf(without));
        const turned = [
          ...takenBack.slice(seed % takenBack.length),
          ...takenBack.slice(0, seed % takenBack.length),
        ];
        expect(statesOf(turned)).toEqual(statesOf(takenBack));
      }),
    ));
  it('more that is gained makes nothing worse: no measure, no step, no minute that is left', () =>
    fc.assert(
      fc.property(written, written, (before, more) => {
        const gained = more
          .filter((e) => e.withdraws === null && e.grade !== 1)
          .map((e, i) => ({ ...e, id: 1000 + i }));
        const order: MeasureState[] = ['open', 'left', 'right', 'both', 'goal'];
        const [a, b] = [statesOf(before), statesOf([...before, ...gained])];
        a.forEach((state, i) => expect(order.indexOf(b[i]!)).toBeGreaterThanOrEqual(order.indexOf(state)));
        const plan = (events: readonly LessonEvent[]) => planState(CHUNKS, learnedIn(ids, events));
        expect(minutesLeft(plan([...before, ...gained]))).toBeLessThanOrEqual(minutesLeft(plan(before)));
        const passed = (events: readonly LessonEvent[]): number =>
          plan(events).flatMap(({ steps }) => steps.filter((s) => s.passed)).length;
        expect(passed([...before, ...gained])).toBeGreaterThanOrEqual(passed(before));
      }),
    ));
  it('gains never add up to more than the plan holds, and nothing is next once nothing is left', () =>
    fc.assert(
      fc.property(written, (events) => {
        const learned = learnedIn(ids, events);
        const all = minutesLeft(planState(CHUNKS, learnedIn(ids, [])));
        const gained = gainsOf(CHUNKS, learned).reduce((sum, g) => sum + g.minutes, 0);
        expect(gained).toBeLessThanOrEqual(all + 1e-6);
        const states = planState(CHUNKS, learned);
        expect(nextSteps(states, 99).length > 0).toBe(minutesLeft(states) > 0);
      }),
    ));
});

describe('laws of an estimate', () => {
  const left = fc.integer({ min: 1, max: 900 });
  const gains = fc.array(fc.integer({ min: 0, max: 200 }), { maxLength: 14 });
  it('its range holds what it says, and more that is left never comes earlier', () =>
    fc.assert(
      fc.property(left, left, gains, fc.integer({ min: 5, max: 60 }), (a, b, weeks, minutes) => {
        const pace = paceOf(weeks, minutes * 5);
        const [sooner, later] = [Math.min(a, b), Math.max(a, b)].map((m) =>
          estimateOf(m, pace, minutes, '2026-11-02', null)!,
        ) as [NonNullable<ReturnType<typeof estimateOf>>, NonNullable<ReturnType<typeof estimateOf>>];
        const said = daysAfter('2026-11-02', Math.min(3650, Math.max(1, Math.ceil(7 * sooner.weeks))));
        expect(sooner.from <= said && said <= sooner.to).toBe(true);
        expect(sooner.weeks).toBeLessThanOrEqual(later.weeks);
        expect(sooner.from <= later.from && sooner.to <= later.to).toBe(true);
        expect(sooner.goal).toBeNull();
      }),
    ));
  it('a promised day is met, perhaps met or missed, in that order as it comes nearer', () =>
    fc.assert(
      fc.property(left, gains, (minutes, weeks) => {
        const pace = paceOf(weeks, 75);
        const said = [1, 8, 30, 120, 400, 4000].map((days) => {
          const goal = new Date(Date.UTC(2026, 10, 2 + days)).toISOString().slice(0, 10);
          return estimateOf(minutes, pace, 15, '2026-11-02', goal)!.goal!;
        });
        const rank = said.map((s) => ['missed', 'perhaps', 'met'].indexOf(s));
        expect(rank).toEqual([...rank].sort((x, y) => x - y));
        expect(said.at(-1)).toBe('met');
      }),
    ));
  it('who brings more than is usual is quicker, who brings less slower, and even weeks narrow the range', () => {
    const [quick, usual, slow] = [paceOf([120, 120, 120], 75), paceOf([], 75), paceOf([30, 30, 30], 75)];
    expect(usual.pace).toBe(1);
    expect(quick.pace).toBeGreaterThan(1);
    expect(slow.pace).toBeLessThan(1);
    expect(
      paceOf(
        Array.from({ length: 12 }, () => 75),
        75,
      ).spread,
    ).toBeLessThan(usual.spread);
    expect(paceOf([0, 150, 0, 150, 0, 150], 75).spread).toBeGreaterThan(
      paceOf([75, 75, 75, 75, 75, 75], 75).spread,
    );
    // A term of illness does not promise years.
    expect(
      paceOf(
        Array.from({ length: 12 }, () => 0),
        75,
      ).pace,
    ).toBeGreaterThanOrEqual(0.1);
  });
  it('nothing left has no day', () =>
    expect(estimateOf(0, paceOf([], 75), 15, '2026-11-02', '2026-12-01')).toBeNull());
});
