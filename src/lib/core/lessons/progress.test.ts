import { describe, expect, it } from 'vitest';
import { formOf } from '../analysis/form';
import { introductionOf } from '../version/introduction';
import { realise } from '../version/realise';
import { DEFAULT_RECIPE } from '../version/recipe';
import { holding, type LessonEvent } from './events';
import { chunksIn, proposedPlan } from './plan';
import { gainsOf, learnedIn, measureStates, nextSteps, planState } from './progress';
import { pathPicture } from './picture';
import { chunksBy, GOAL, MUSIC, recorder, SONG } from '../test/lessonPiece';

const learned = (events: readonly LessonEvent[]) => learnedIn(MUSIC.ids, events);
const states = (events: readonly LessonEvent[]) => measureStates(MUSIC.form, learned(events), GOAL);
const did = recorder();
const [A, B] = ['m0..m3', 'm4..m7'];

describe('what is next', () => {
  const next = (...events: LessonEvent[]) => {
    const [first] = nextSteps(planState(chunksBy('front to back'), learned(events)), 1);
    return first && `${first.chunk.from}:${first.step.id}${first.tempo ? ` ${first.tempo}` : ''}`;
  };
  const both = (chunk: string): LessonEvent => did({ chunk, step: 'both' });
  it('starts with hearing the first chunk, and goes on in the order of the steps', () => {
    expect(next()).toBe('0:hear');
    expect(next(did({ step: 'hear' }))).toMatch(/^0:right-counting \d/);
    expect(next(did({ step: 'right' }))).toMatch(/^0:left/);
  });
  it('is not asked for where a later step has shown it, nor gained by "not yet"', () => {
    expect(next(both(A!))).toBe('4:hear');
    expect(next(did({ step: 'hear', grade: 1 }))).toBe('0:hear');
    expect(next(did({ step: 'hear', grade: 2 }))).not.toBe('0:hear');
  });
  it('joins chunks once both have both hands, then climbs from where it was', () => {
    expect(next(both(A!), both(B!))).toMatch(/^4:join/);
    const joined = [both(A!), both(B!), did({ chunk: B!, step: 'join' })];
    expect(next(...joined)).toMatch(/^0:ladder/);
    expect(next(...joined, did({ step: 'ladder', tempo: 70 }))).toMatch(/^0:ladder (7[1-9]|80)/);
    expect(next(...joined, did({ step: 'ladder', tempo: GOAL }), did({ step: 'memory' }))).toMatch(
      /^4:ladder/,
    );
  });
  it('waits with joining until there is something to join', () => {
    const hardest = planState(chunksBy('hardest first'), learned([both(B!)]));
    expect(hardest[0]!.steps.find((s) => s.id === 'join')!.waits).toBe(true);
    expect(nextSteps(hardest, 1)[0]).toMatchObject({ chunk: { from: 0 }, step: { id: 'hear' } });
    const joins = (step: string) =>
      planState(chunksBy('hardest first'), learned([both(B!), did({ step })]))[0]!.steps.find(
        (s) => s.id === 'join',
      )!;
    expect([joins('right').waits, joins('both').waits]).toEqual([true, false]);
  });
  it('is nothing when all is done', () => {
    const chunks = chunksBy('front to back');
    const all = chunks.flatMap((c) => c.steps.map((s) => did({ chunk: c.id, step: s.id, tempo: GOAL })));
    expect(nextSteps(planState(chunks, learned(all)), 3)).toEqual([]);
  });
});

describe('events', () => {
  it('are taken back by others, which can be taken back, too', () => {
    const [one, back, forth] = [did({}), did({}), did({})];
    const undone = { ...back, withdraws: one.id };
    expect(holding([one, undone])).toEqual([]);
    expect(holding([{ ...forth, withdraws: back.id }, undone, one])).toEqual([one]);
    expect(states([one, undone])[0]).toBe('open');
  });
  it('say where they were of measures that this version does not have', () => {
    const gone = did({ chunk: 'i0..i1' });
    expect(learned([gone]).elsewhere).toEqual([gone]);
    expect(states([gone])).toEqual(MUSIC.ids.map(() => 'open'));
  });
});

describe('measures', () => {
  it('are as far as their hands are, and what comes again is as far as it is anywhere', () => {
    const some = states([did({ step: 'right-counting' }), did({ chunk: B!, step: 'left' })]);
    expect([some[0], some[4], some[8]]).toEqual(['right', 'left', 'right']);
    expect(states([did({ step: 'right' }), did({ step: 'left' })])[0]).toBe('both');
    expect(states([did({ chunk: 'm8..m11', step: 'both' })])[0]).toBe('both');
    expect(states([did({ step: 'hear' }), did({ step: 'review', hand: 'both' })])[0]).toBe('open');
  });
  it('are at the goal at its tempo, or from memory', () => {
    expect(states([did({ step: 'ladder', tempo: GOAL - 1 })])[0]).toBe('both');
    expect(states([did({ step: 'ladder', tempo: GOAL })])[0]).toBe('goal');
    expect(states([did({ step: 'memory', tempo: null })])[0]).toBe('goal');
  });
  it('stay learned when sections begin elsewhere or an introduction comes before them', () => {
    const events = [did({ step: 'both' }), did({ chunk: B!, step: 'right' })];
    const form = formOf({ ...SONG, sectionStarts: [{ measure: 0 }, { measure: 2 }, { measure: 8 }] });
    const music = { ...MUSIC, form };
    const inner = planState(chunksIn(proposedPlan(music, 'front to back'), music, GOAL), learned(events));
    expect(inner.find((s) => s.chunk.from === 0)!.steps.find((s) => s.id === 'both')!.done).not.toBeNull();
    const over = inner.find((s) => s.chunk.from <= 3 && s.chunk.to >= 4)!;
    expect(over.steps.find((s) => s.id === 'both')).toMatchObject({
      done: null,
      measures: 4 - over.chunk.from,
    });

    const recipe = { ...DEFAULT_RECIPE, style: 'sing-along' as const, introduction: 2 as const };
    expect(introductionOf(SONG, recipe)).toBe(2);
    const { form: longer, score } = realise(SONG, recipe, []);
    const there = measureStates(
      longer,
      learnedIn(
        score.measures.map((m) => m.id),
        events,
      ),
      GOAL,
    );
    expect(there.slice(0, 6)).toEqual(['open', 'open', 'both', 'both', 'both', 'both']);
  });
  it('become a path of letters', () => {
    const { states: letters } = pathPicture(MUSIC.form, MUSIC.difficulty, states([did({})]));
    expect(letters.replaceAll('|', '')).toBe('bbbboooo');
  });
});

describe('chunks that begin or end at a beat', () => {
  const plan = {
    ...proposedPlan(MUSIC, 'front to back'),
    chunks: [
      { from: 'm0', to: 'm1:2', name: null, steps: [{ id: 'both', name: null }] },
      {
        from: 'm1:3',
        to: 'm3',
        name: null,
        steps: [
          { id: 'both', name: null },
          { id: 'join', name: null },
        ],
      },
    ],
  };
  const stateOf = (...events: LessonEvent[]) => planState(chunksIn(plan, MUSIC, GOAL), learned(events));
  const done = (...events: LessonEvent[]): boolean[] => stateOf(...events).map((c) => !!c.steps[0]!.done);
  const both = (chunk: string, more: Partial<LessonEvent> = {}): LessonEvent =>
    did({ chunk, step: 'both', ...more });
  it('are done by themselves: half of a measure is not the other half', () => {
    expect(done(both('m0..m1:2'))).toEqual([true, false]);
    expect(done(both('m1:3..m3'))).toEqual([false, true]);
    expect(done(both('m0..m3'))).toEqual([true, true]);
    expect(done(both('m0..m1:1'), both('m1:3..m3'))).toEqual([false, true]);
  });
  it('together are the measure that they share, at the slower of their tempi', () => {
    const halves = [both('m0..m1:2', { tempo: 60 }), both('m1:3..m3', { tempo: 72 })];
    expect(states(halves).slice(0, 4)).toEqual(['both', 'both', 'both', 'both']);
    expect(states(halves.slice(0, 1)).slice(0, 3)).toEqual(['both', 'open', 'open']);
    const [whole] = planState(chunksBy('front to back'), learned(halves));
    expect(whole!.steps.find((s) => s.id === 'both')).toMatchObject({ measures: 4, tempo: 60 });
    const [gap] = planState(chunksBy('front to back'), learned([both('m0..m1:1'), both('m1:3..m3')]));
    expect(gap!.steps.find((s) => s.id === 'both')).toMatchObject({ done: null, measures: 3 });
  });
  it('are connected where they meet', () => {
    const joins = (...events: LessonEvent[]) => stateOf(...events)[1]!.steps.find((s) => s.id === 'join')!;
    expect(joins(both('m1:3..m3')).waits).toBe(true);
    expect(joins(both('m1:3..m3'), both('m0..m1:2')).waits).toBe(false);
  });
});

describe('gains', () => {
  it('count a step once, and a ladder by its rungs', () => {
    const chunks = chunksBy('front to back');
    const climbed = (...tempi: number[]) =>
      gainsOf(chunks, learned(tempi.map((tempo) => did({ step: 'ladder', tempo })))).map((g) => g.minutes);
    const whole = chunks[0]!.steps.find((s) => s.id === 'ladder')!;
    expect(climbed(GOAL)).toEqual([whole.minutes]);
    expect(climbed(whole.ladder[0]!, GOAL).reduce((a, b) => a + b, 0)).toBeCloseTo(whole.minutes);
    expect(climbed(GOAL, GOAL)).toHaveLength(1);
    expect(gainsOf(chunks, learned([did({ grade: 1 })]))).toEqual([]);
  });
});
