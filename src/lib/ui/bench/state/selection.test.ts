/** What is chosen on the bench: one note, a stretch of one hand, whole measures of both; kept where it can be when the version changes. */
import { describe, expect, it } from 'vitest';
import { LEVELS } from '$core/arrange/levels';
import { pitchName } from '$core/theory/pitch';
import { scoreFrom } from '$core/test/shorthand';
import { DEFAULT_RECIPE } from '$core/version/recipe';
import { realise, type Version } from '$core/version/realise';
import { SelectionState } from './selection.svelte';

const song = scoreFrom({
  key: 'C',
  time: { beats: 4, beatType: 4 },
  right: 'C4:1 D4:1 E4:2 | F4:2 G4:2 | E4:1 D4:1 C4:2 | C4:4',
  left: 'C3:4 | F3:4 | G3:4 | C3:4',
  chords: 'C | F | G | C',
});
const made = realise(song, { ...DEFAULT_RECIPE, level: 2 }, [], LEVELS);

function chosenIn(version: () => Version | undefined = () => made) {
  const state = new SelectionState(version);
  return {
    state,
    /** Names of what is chosen, the upper staff's without a mark. */
    names: (): string[] => state.notes.map((n) => `${pitchName(n.pitch)}${n.staff === 1 ? '' : ' left'}`),
  };
}

describe('what is chosen', () => {
  it('begins with the first note of the right hand once there is a version', () => {
    let version: Version | undefined = undefined;
    const { state } = chosenIn(() => version);
    state.settle();
    expect(state.id).toBeUndefined();
    version = made;
    state.settle();
    const first = made.score.parts[0]!.notes.find((n) => n.id === state.id)!;
    expect([first.staff, first.onset]).toEqual([1, 0]);
  });
  it('a measure that was asked for before there was a version is chosen then', () => {
    let version: Version | undefined = undefined;
    const { state } = chosenIn(() => version);
    state.selectMeasure(2);
    version = made;
    state.settle();
    expect(state.measure).toBe(2);
  });
  it('opens at a note or at a measure, by its id, once', () => {
    const note = made.score.parts[0]!.notes.findLast((n) => n.staff === 1)!;
    const { state } = chosenIn();
    state.open(note.id);
    state.settle();
    expect(state.id).toBe(note.id);
    state.selectMeasure(0);
    state.settle();
    expect(state.measure).toBe(0);
    state.open(made.score.measures[1]!.id);
    state.settle();
    expect(state.measure).toBe(1);
  });
  it('reaches on in its hand by notes', () => {
    const { state, names } = chosenIn();
    state.selectMeasure(0);
    const [first] = names();
    state.extend('next');
    expect(names()).toHaveLength(2);
    expect(names()[0]).toBe(first);
    expect(names().some((n) => n.endsWith('left'))).toBe(false);
    // Back again it is one note.
    state.extend('previous');
    expect(names()).toEqual([first]);
  });
  it('reaches on by whole measures of both hands', () => {
    const { state, names } = chosenIn();
    state.selectMeasure(0);
    state.extend('next-measure');
    expect(state.range).toEqual({ from: 0, to: 1 });
    expect(names().some((n) => n.endsWith('left'))).toBe(true);
    state.extendToMeasure(3);
    expect(state.range).toEqual({ from: 0, to: 3 });
    const struck = made.score.parts[0]!.notes.filter((n) => n.tie !== 'stop' && n.tie !== 'both');
    expect(state.notes).toHaveLength(struck.length);
    // Towards the beginning the range turns round, and stays in order.
    state.selectMeasure(3);
    state.extendToMeasure(1);
    expect(state.range).toEqual({ from: 1, to: 3 });
  });
  it('a plain step ends what was chosen beyond one note', () => {
    const { state, names } = chosenIn();
    state.selectMeasure(0);
    state.extend('next-measure');
    state.move('next');
    expect(names()).toHaveLength(1);
    expect(state.from).toBeUndefined();
    expect(state.byMeasure).toBe(false);
  });
  it('takes no note that no hand strikes', () => {
    const { state } = chosenIn();
    state.selectMeasure(1);
    const before = state.id;
    state.select('nothing of that name');
    state.select(undefined);
    state.extendTo('nothing of that name');
    expect(state.id).toBe(before);
    expect(state.from).toBeUndefined();
  });
  it('stays where it stood when its note is gone', () => {
    let version: Version = made;
    const { state } = chosenIn(() => version);
    const inThird = made.score.parts[0]!.notes.find(
      (n) => n.staff === 1 && n.onset >= made.score.measures[2]!.start,
    )!;
    state.select(inThird.id);
    const gone = inThird.id;
    version = {
      ...made,
      fingers: Object.fromEntries(Object.entries(made.fingers).filter(([id]) => id !== gone)),
      score: {
        ...made.score,
        parts: [{ ...made.score.parts[0]!, notes: made.score.parts[0]!.notes.filter((n) => n.id !== gone) }],
      },
    };
    state.settle();
    expect(state.id).not.toBe(gone);
    const now = version.score.parts[0]!.notes.find((n) => n.id === state.id)!;
    expect(now.staff).toBe(1);
    expect(Math.abs(now.onset - inThird.onset)).toBeLessThanOrEqual(made.score.measures[0]!.length);
  });
});
