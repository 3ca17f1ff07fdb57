import { describe, expect, it } from 'vitest';
import { formOf } from '../analysis/form';
import { scoreFrom } from '../test/shorthand';
import {
  chunksOf,
  learnedIn,
  measureStates,
  nextStep,
  stepsOf,
  stepState,
  stepTempo,
  type ProgressEvent,
} from './plan';
import { introductionOf } from '../version/introduction';
import { realise } from '../version/realise';
import { DEFAULT_RECIPE } from '../version/recipe';
import { stepById, type StepId } from './steps';

const a = 'C4:4 | D4:4 | E4:4 | F4:4';
const b = 'G4:4 | A4:4 | B4:4 | C5:4';
const song = scoreFrom({ key: 'C', time: { beats: 4, beatType: 4 }, right: [a, b, a].join(' | ') });
const form = formOf(song);
const chunks = chunksOf(form, song.measures);
const learned = (...events: ProgressEvent[]) => learnedIn(song.measures, events);
let clock = 0;
const did = (chunk: number, step: StepId, undone = false): ProgressEvent => ({
  chunk: chunks[chunk]!.id,
  step,
  tempo: 60,
  at: new Date(2026, 0, 1, 0, 0, clock++).toISOString(),
  undone,
});

describe('chunks', () => {
  it('are the phrases that are new: what comes again is learned where it first stands', () => {
    expect(chunks.map((c) => [c.from, c.to])).toEqual([
      [0, 3],
      [4, 7],
    ]);
  });
  it('have nothing to join at the beginning', () => {
    expect(stepsOf(chunks[0]!).map((s) => s.id)).not.toContain('join');
    expect(stepsOf(chunks[1]!).map((s) => s.id)).toContain('join');
  });
});

describe('the next step', () => {
  const next = (...events: ProgressEvent[]) => {
    const found = nextStep(chunks, learned(...events));
    return found && `${found.chunk.from}:${found.step.id}`;
  };
  it('starts with hearing the first chunk', () => expect(next()).toBe('0:hear'));
  it('goes on in the order of the steps', () => {
    expect(next(did(0, 'hear'))).toBe('0:right-counting');
    expect(next(did(0, 'hear'), did(0, 'right-counting'), did(0, 'right'))).toBe('0:left');
  });
  it('opens the next chunk once both hands have this one, and polishes later', () => {
    expect(next(did(0, 'both'))).toBe('4:hear');
    expect(next(did(0, 'both'), did(1, 'join'))).toBe('0:faster');
  });
  it('does not ask for what a later step has shown', () => {
    expect(next(did(0, 'right'))).toBe('0:left');
    expect(next(did(0, 'goal'), did(1, 'right'))).toBe('4:left');
  });
  it('comes back when a step is taken back', () => {
    expect(next(did(0, 'hear'), did(0, 'hear', true))).toBe('0:hear');
    const again = learned(did(0, 'hear'), did(0, 'hear', true), did(0, 'hear'));
    expect(stepState(again, chunks[0]!, 'hear').done).not.toBeNull();
  });
  it('is nothing when all is done', () => {
    const all = chunks.flatMap((c, i) => stepsOf(c).map((s) => did(i, s.id)));
    expect(next(...all)).toBeUndefined();
  });
});

describe('measures', () => {
  it('take the state of their chunk, and repeats that of where they first stand', () => {
    const states = measureStates(form, learned(did(0, 'right'), did(1, 'goal')));
    expect(states[0]).toBe('right');
    expect(states[4]).toBe('goal');
    expect(states[8]).toBe('right');
  });
  it('are with both hands once each hand has them alone', () => {
    expect(measureStates(form, learned(did(0, 'right'), did(0, 'left')))[0]).toBe('both');
    expect(measureStates(form, learned(did(0, 'left')))[0]).toBe('left');
    expect(measureStates(form, learned(did(0, 'right-counting')))[0]).toBe('right');
    for (const step of ['both', 'faster', 'join'] as const)
      expect(measureStates(form, learned(did(1, step)))[4]).toBe('both');
    for (const step of ['goal', 'memory'] as const)
      expect(measureStates(form, learned(did(0, step)))[0]).toBe('goal');
    expect(measureStates(form, learned())[0]).toBe('open');
  });
});

describe('the ladder of tempi', () => {
  it('rises from the first slow one to the goal', () => {
    const tempi = (['right', 'join', 'faster', 'goal'] as const).map((id) => stepTempo(stepById(id), 96));
    expect(tempi).toEqual([58, 68, 82, 96]);
  });
  it('begins no slower than 30, and never above the goal', () => {
    const first = (goal: number): number => stepTempo(stepById('right'), goal);
    expect([first(60), first(48), first(40), first(20)]).toEqual([36, 30, 30, 20]);
  });
});

describe('what was learned stays with its measures', () => {
  const before = [did(0, 'both'), did(1, 'right')];
  it('when a section begins elsewhere: a step is done where it was done in every measure of the chunk', () => {
    const moved = formOf({ ...song, sectionStarts: [{ measure: 0 }, { measure: 2 }, { measure: 8 }] });
    const others = chunksOf(moved, song.measures);
    const now = learnedIn(song.measures, before);
    expect(measureStates(moved, now).slice(0, 8)).toEqual([
      ...Array(4).fill('both'),
      ...Array(4).fill('right'),
    ]);
    const inside = others.find((c) => c.from === 2)!;
    expect(stepState(now, others[0]!, 'both').done).not.toBeNull();
    expect(stepState(now, inside, 'both')).toMatchObject({
      done: null,
      measures: Math.min(4, inside.to + 1) - 2,
    });
  });
  it('when an introduction comes before them: its measures are still to be learned', () => {
    const recipe = { ...DEFAULT_RECIPE, style: 'sing-along' as const, introduction: 2 as const };
    expect(introductionOf(song, recipe)).toBe(2);
    const { form: longer, score } = realise(song, recipe, []);
    const states = measureStates(longer, learnedIn(score.measures, before));
    expect(states.slice(0, 6)).toEqual(['open', 'open', 'both', 'both', 'both', 'both']);
  });
  it('and is shown, not guessed, where its measures are gone', () => {
    const gone = { ...did(0, 'both'), chunk: 'i0..i1' };
    expect(learned(gone).elsewhere).toEqual([gone]);
    expect(learned(gone, { ...did(0, 'both', true), chunk: 'i0..i1' }).elsewhere).toEqual([]);
    expect(measureStates(form, learned(gone))).toEqual(form.firstSeen.map(() => 'open'));
  });
});
