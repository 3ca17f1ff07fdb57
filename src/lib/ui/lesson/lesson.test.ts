/** A lesson without a browser and without a server: what is in hand, ticked, graded, taken back, written and set. */
import { proposedPlan } from '$core/lessons/plan';
import type { LessonEvent } from '$core/lessons/events';
import { sentSchema, type Sent } from '$core/lessons/record';
import { GOAL, MUSIC, recorder } from '$core/test/lessonPiece';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { LessonState, type LessonStart, type OpenPiece } from './lesson.svelte';

const did = recorder();
const TODAY = '2026-11-26';
const [A, B] = ['m0..m3', 'm4..m7'];

const piece = (events: readonly LessonEvent[] = [], assignment = 'song'): OpenPiece => ({
  ...MUSIC,
  assignment,
  title: 'Song',
  plan: proposedPlan(MUSIC, 'front to back'),
  goal: GOAL,
  events,
  carried: [],
});

/** A lesson whose post is kept here. `left` is what a browser had kept of it. */
function begin(start: Partial<LessonStart> = {}, left: readonly Sent[] = []) {
  const sent: Sent[] = [];
  const lesson = new LessonState(
    {
      id: 'l',
      today: TODAY,
      note: '',
      week: null,
      minutes: 15,
      minutesSet: null,
      practised: null,
      piece: piece(),
      others: [],
      chunk: null,
      ...start,
    },
    () => ({
      left,
      push: (one) => void sent.push(one),
      flush: () => Promise.resolve(),
      close: () => undefined,
      conflict: null,
      settle: () => undefined,
    }),
  );
  return { lesson, sent };
}
const stepOf = (lesson: LessonState, id: string) => lesson.steps.find((s) => s.id === id)!;

describe('what is in hand', () => {
  it('is what is next, or what was asked for', () => {
    expect(begin().lesson).toMatchObject({ chunkId: A, step: { id: 'hear' } });
    expect(begin({ chunk: B! }).lesson).toMatchObject({ chunkId: B, step: { id: 'hear' } });
    expect(begin({ chunk: 'm90..m91' }).lesson.chunkId).toBe(A);
    const { lesson } = begin({ piece: piece([did({ step: 'both' })]) });
    expect(lesson.chunkId).toBe(B);
  });
  it('goes on to the next open step with every tick, and stays where it was put', () => {
    const { lesson } = begin();
    lesson.tick();
    expect(lesson.step!.id).toBe('right-counting');
    lesson.chooseStep('left');
    lesson.tick();
    expect(stepOf(lesson, 'left').done).not.toBeNull();
    expect(lesson.step!.id).toBe('right-counting');
    lesson.stepBy(1);
    expect(lesson.step!.id).toBe('right');
    lesson.stepBy(-9);
    expect(lesson.step!.id).toBe('hear');
    lesson.stepBy(99);
    expect(lesson.step!.id).toBe('memory');
  });
  it('is walked in the order of the music, whatever the plan’s', () => {
    const { lesson } = begin({ piece: { ...piece(), plan: proposedPlan(MUSIC, 'hardest first') } });
    expect(lesson.chunkId).toBe(B);
    lesson.walkBy(-1);
    expect(lesson.chunkId).toBe(A);
    lesson.walkBy(-1);
    expect(lesson.chunkId).toBe(A);
    lesson.walkBy(5);
    expect(lesson.chunkId).toBe(B);
  });
  it('is nothing where there is no piece', () => {
    const { lesson, sent } = begin({ piece: null });
    lesson.tick();
    lesson.grade(3);
    lesson.untick('hear');
    lesson.walkBy(1);
    expect([lesson.chunk, lesson.step, lesson.whole]).toEqual([undefined, undefined, null]);
    expect(sent).toEqual([]);
  });
});

describe('a tick', () => {
  it('says measures, step, hand, counting and the tempo that is asked', () => {
    const { lesson, sent } = begin();
    lesson.chooseStep('right-counting');
    const asked = lesson.asked!;
    lesson.tick();
    expect(sent).toMatchObject([
      {
        kind: 'event',
        assignment: 'song',
        chunk: A,
        step: 'right-counting',
        hand: 'right',
        counting: true,
        tempo: asked,
        grade: null,
      },
    ]);
    expect(stepOf(lesson, 'right-counting').done).toMatchObject({ tempo: asked });
    expect(lesson.states[0]).toBe('right');
  });
  it('says the tempo that was chosen, once', () => {
    const { lesson, sent } = begin();
    lesson.chooseStep('both');
    lesson.tempo = 71;
    expect(lesson.asked).toBe(71);
    lesson.tick();
    lesson.tick();
    expect(sent.map((s) => s.kind === 'event' && s.tempo)).toEqual([71, lesson.rungs[1]]);
  });
  it('climbs the ladder rung by rung, and is done at the top', () => {
    const { lesson } = begin();
    lesson.chooseStep('ladder');
    const { ladder } = stepOf(lesson, 'ladder');
    const climbed = ladder.map(() => {
      lesson.chooseStep('ladder');
      const asked = lesson.asked;
      lesson.tick();
      return asked;
    });
    expect(climbed).toEqual(ladder);
    expect(climbed.at(-1)).toBe(GOAL);
    expect(stepOf(lesson, 'ladder').done).not.toBeNull();
    expect(lesson.states[0]).toBe('goal');
  });
  it('is taken back, also one of another day', () => {
    const earlier = did({ step: 'hear', token: 'a-token-of-earlier' });
    const { lesson, sent } = begin({ piece: piece([earlier]) });
    lesson.choose(A!);
    expect(stepOf(lesson, 'hear').done).not.toBeNull();
    lesson.untick('hear');
    expect(stepOf(lesson, 'hear').done).toBeNull();
    expect(sent).toMatchObject([{ kind: 'withdrawal', withdraws: 'a-token-of-earlier' }]);
    lesson.tick(stepOf(lesson, 'left'));
    lesson.untick('left');
    expect(stepOf(lesson, 'left').done).toBeNull();
  });
  it('that was made with other measures around it says so', () => {
    const { lesson, sent } = begin({ piece: piece([did({ chunk: 'm0..m7', step: 'both' })]) });
    lesson.choose(A!);
    lesson.untick('both');
    expect(lesson.refused).toMatch(/Checked off in another chunk/);
    expect(sent).toEqual([]);
  });
  it('that is known from an earlier version is done, and stays so', () => {
    const known = did({ chunk: A!, step: 'left', hand: 'left', tempo: 60 });
    const { lesson, sent } = begin({ piece: { ...piece(), carried: [known] } });
    lesson.choose(A!);
    expect(stepOf(lesson, 'left').done).toMatchObject({ tempo: 60 });
    expect(stepOf(lesson, 'right').done).toBeNull();
    lesson.untick('left');
    expect(lesson.refused).toMatch(/earlier version/);
    expect([sent, lesson.today]).toEqual([[], []]);
  });
});

describe('how it went', () => {
  it('is said of what was ticked last: the tick without it is withdrawn', () => {
    const { lesson, sent } = begin();
    lesson.tick();
    lesson.grade(2);
    expect(sent.map((s) => s.kind)).toEqual(['event', 'withdrawal', 'event']);
    expect(sent.at(-1)).toMatchObject({ step: 'hear', grade: 2 });
    expect(lesson.last).toMatchObject({ step: 'hear', grade: 2 });
    // The same again changes nothing; another takes its place.
    lesson.grade(2);
    expect(sent).toHaveLength(3);
    lesson.grade(4);
    expect(lesson.today.map((e) => e.grade)).toEqual([4]);
  });
  it('ticks the step in hand where nothing was ticked yet', () => {
    const { lesson, sent } = begin();
    lesson.grade(3);
    expect(sent).toMatchObject([{ kind: 'event', step: 'hear', grade: 3 }]);
    expect(lesson.lastStep).toBe('Listen');
  });
  it('of "not yet" leaves the step open', () => {
    const { lesson } = begin();
    lesson.chooseStep('right');
    lesson.grade(1);
    expect(stepOf(lesson, 'right').done).toBeNull();
    expect(lesson.last).toMatchObject({ step: 'right', grade: 1 });
    lesson.grade(3);
    expect(stepOf(lesson, 'right').done).not.toBeNull();
  });
  it('is of the step in hand again once another is chosen', () => {
    const { lesson } = begin();
    lesson.tick();
    lesson.chooseStep('left');
    expect(lesson.last).toBeUndefined();
    lesson.grade(4);
    expect(lesson.last).toMatchObject({ step: 'left' });
  });
  it('keeps the tempo that was reached', () => {
    const { lesson } = begin();
    lesson.chooseStep('both');
    lesson.tempo = 66;
    lesson.tick();
    lesson.grade(4);
    expect(lesson.last).toMatchObject({ tempo: 66, grade: 4 });
  });
});

describe('what is due', () => {
  const known = [A!, B!].map((chunk) =>
    did({ chunk, step: 'ladder', tempo: GOAL, grade: 3, day: '2026-06-01' }),
  );
  it('is played again as a step of its chunk, and then not due', () => {
    const faded = did({ chunk: A!, step: 'both', grade: 2, day: '2026-08-01' });
    const { lesson, sent } = begin({ piece: piece([faded]), chunk: A! });
    expect(lesson.step!.id).toBe('review');
    lesson.grade(3);
    expect(sent).toMatchObject([{ step: 'review', hand: 'both', grade: 3 }]);
    expect(lesson.reviews).toEqual([]);
    expect(stepOf(lesson, 'review').done).not.toBeNull();
  });
  it('is the whole piece once that is known', () => {
    const { lesson } = begin({ piece: piece(known), chunk: 'm0..m7' });
    expect(lesson.chunk).toMatchObject({ id: 'm0..m7', name: 'The whole piece', from: 0, to: 7 });
    expect(lesson.walk.at(-1)!.id).toBe('m0..m7');
    expect(lesson.steps.map((s) => s.id)).toEqual(['review']);
    lesson.tick();
    expect(lesson.reviews).toEqual([]);
    expect(begin({ piece: piece(known.slice(0, 1)) }).lesson.whole).toBeNull();
  });
});

describe('a tapped beat', () => {
  it('becomes the tempo from the third tap on, in quarter notes', () => {
    const { lesson } = begin();
    lesson.chooseStep('both');
    const dotted = (beats: number): number => beats * 1.5;
    for (const now of [0, 1000]) lesson.tap(now, dotted);
    expect(lesson.tempo).toBeUndefined();
    lesson.tap(2000, dotted);
    expect(lesson.asked).toBe(90);
    // Nobody plays as fast as a finger can drum.
    for (let i = 0; i < 9; i++) lesson.tap(2000 + i * 20, dotted);
    expect(lesson.tempo).toBe(400);
  });
});

describe('the week', () => {
  const others = [{ assignment: 'other', next: [], due: [{ chunk: 'm0..m3' }] }];
  it('is proposed from what is next and due now, and follows what is done', () => {
    const { lesson } = begin({ others });
    expect(lesson.planned[0]).toMatchObject({
      assignment: 'song',
      chunk: A,
      steps: ['hear', 'right-counting', 'right'],
    });
    expect(lesson.planned.at(-1)).toMatchObject({ assignment: 'other', why: 'due' });
    for (const step of ['hear', 'right-counting', 'right']) lesson.tick(stepOf(lesson, step));
    expect(lesson.planned[0]!.steps[0]).toBe('left');
  });
  it('is the teacher’s once she has set it, by the minutes that there are', () => {
    const { lesson, sent } = begin({ others });
    lesson.setWeek();
    const { planned } = lesson;
    lesson.tick();
    expect(lesson.planned).toBe(planned);
    expect(sent[0]).toMatchObject({ kind: 'change', minutesSet: 15, week: planned });
    lesson.setWeek(planned.slice(1));
    expect(lesson.planned).toHaveLength(planned.length - 1);
    lesson.setMinutes(30);
    expect(lesson.week).toBeNull();
    expect(lesson.planned.reduce((sum, i) => sum + i.minutes, 0)).toBe(30);
    lesson.setWeek();
    lesson.setWeek(null);
    expect(lesson.week).toBeNull();
  });
});

describe('what is written', () => {
  it('is said as it stands, with the minutes that were practised', () => {
    const { lesson, sent } = begin({ note: 'Before' });
    expect(lesson.note).toBe('Before');
    lesson.write('Before, and now');
    lesson.setPractised(80);
    lesson.setPractised(null);
    expect(sent).toEqual([
      { kind: 'change', note: 'Before, and now', was: { note: 'Before' } },
      { kind: 'change', practised: 80, was: { practised: null } },
      { kind: 'change', practised: null, was: { practised: 80 } },
    ]);
    expect(lesson).toMatchObject({ note: 'Before, and now', practised: null });
  });
});

describe('another piece within the lesson', () => {
  it('leaves what was written, set and ticked, though the server’s page does not know it yet', () => {
    const { lesson } = begin();
    lesson.write('Softer.');
    lesson.setWeek();
    lesson.tick();
    const { week } = lesson;
    lesson.show({ piece: piece([], 'waltz'), others: [], chunk: null });
    expect(lesson).toMatchObject({ note: 'Softer.', week, step: { id: 'hear' } });
    lesson.show({ piece: piece(), others: [], chunk: A! });
    expect(stepOf(lesson, 'hear').done).not.toBeNull();
  });
  it('counts an event once that has reached the server meanwhile, and what takes it back as well', () => {
    const { lesson, sent } = begin();
    lesson.tick();
    lesson.tick();
    const [first] = sent as [Extract<Sent, { kind: 'event' }>];
    const onServer = did({ step: 'hear', token: first.token });
    lesson.show({ piece: piece([onServer]), others: [], chunk: A! });
    expect(lesson.events).toHaveLength(2);
    lesson.untick('hear');
    expect(stepOf(lesson, 'hear').done).toBeNull();
    // Taken back here, and the event arrives under its number only now.
    lesson.show({ piece: piece([{ ...onServer, id: 7000 }]), others: [], chunk: A! });
    expect(stepOf(lesson, 'hear').done).toBeNull();
  });
});

describe('what a browser kept of a lesson', () => {
  it('holds again: ticks, what takes them back, words, week and minutes', () => {
    const { lesson: before, sent } = begin();
    before.tick();
    before.tick();
    before.untick('hear');
    before.write('Kept.');
    before.setPractised(45);
    before.setMinutes(25);
    before.setWeek();
    const { lesson } = begin({}, sent);
    expect(stepOf(lesson, 'right-counting').done).not.toBeNull();
    expect(stepOf(lesson, 'hear').done).toBeNull();
    expect(lesson).toMatchObject({ note: 'Kept.', practised: 45, minutes: 25, week: before.week });
  });
});

describe('everything that is said', () => {
  it('is what the record takes, and what is seen is what the record would say', () => {
    const act = fc.oneof(
      fc.record({ do: fc.constant('tick' as const) }),
      fc.record({
        do: fc.constant('grade' as const),
        grade: fc.constantFrom(1 as const, 2 as const, 3 as const, 4 as const),
      }),
      fc.record({
        do: fc.constant('untick' as const),
        step: fc.constantFrom('hear', 'right', 'left', 'both', 'ladder'),
      }),
      fc.record({
        do: fc.constant('choose' as const),
        step: fc.constantFrom('hear', 'right', 'left', 'both', 'ladder', 'memory'),
      }),
      fc.record({ do: fc.constant('walk' as const), by: fc.constantFrom(-1, 1) }),
      fc.record({ do: fc.constant('write' as const), note: fc.string({ maxLength: 40 }) }),
    );
    fc.assert(
      fc.property(fc.array(act, { maxLength: 25 }), (acts) => {
        const { lesson, sent } = begin();
        for (const a of acts)
          if (a.do === 'tick') lesson.tick();
          else if (a.do === 'grade') lesson.grade(a.grade);
          else if (a.do === 'untick') lesson.untick(a.step);
          else if (a.do === 'choose') lesson.chooseStep(a.step);
          else if (a.do === 'walk') lesson.walkBy(a.by);
          else lesson.write(a.note);
        for (const one of sent) expect(sentSchema.safeParse(one).success).toBe(true);
        // A page that is opened with what was sent shows the same.
        const again = begin({ chunk: lesson.chunkId }, sent).lesson;
        expect(again.states).toEqual(lesson.states);
        expect(again.steps.map((s) => [s.id, s.done?.tempo, s.passed])).toEqual(
          lesson.steps.map((s) => [s.id, s.done?.tempo, s.passed]),
        );
      }),
      { numRuns: 60 },
    );
  });
});
