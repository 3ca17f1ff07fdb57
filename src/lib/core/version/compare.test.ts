import { describe, expect, it } from 'vitest';
import { scoreFrom } from '../test/shorthand';
import { differencesBetween, runsOf } from './compare';
import { realise } from './realise';
import { DEFAULT_RECIPE } from './recipe';

const song = scoreFrom({
  key: 'C',
  time: { beats: 4, beatType: 4 },
  right: 'C5:1 E5:1 G5:2 | A5:4 | G5:1 F5:1 E5:1 D5:1 | C5:4',
  left: '[C3 E3 G3]:4 | [F3 A3 C4]:4 | [G3 B3 D4]:4 | [C3 E3 G3]:4',
  chords: 'C | F | G | C',
});
const plain = realise(song, DEFAULT_RECIPE, []);
const whole = { from: 0, to: 3 };

describe('two versions', () => {
  it('that are the same differ nowhere', () => {
    expect(differencesBetween(plain, realise(song, DEFAULT_RECIPE, []), whole)).toEqual([]);
  });
  it('differ where a finger, a left hand or a count is another', () => {
    const other = realise(song, DEFAULT_RECIPE, [
      { kind: 'finger', at: { note: 'm0s1n0' }, value: 2 },
      { kind: 'texture', at: { measure: 'm1' }, value: 'held-root' },
      { kind: 'count', at: { measure: 'm2' }, value: 'one two three four' },
    ]);
    const found = differencesBetween(plain, other, whole);
    expect(found.map((d) => d.measure)).toEqual([0, 1, 2]);
    expect(found[0]!.says[0]).toMatch(/^right hand: fingers/);
    expect(found[1]!.says).toContain('left hand: different notes');
    expect(found[2]!.says).toContain('different counting');
  });
  it('in two keys differ only in what is not the key', () => {
    const recipe = { ...DEFAULT_RECIPE, level: 6 };
    const [inC, inD] = ['C', 'D'].map((key) => realise(song, { ...recipe, key }, []));
    const notes = differencesBetween(inC!, inD!, whole)
      .flatMap((d) => d.says)
      .filter((s) => /notes|chords/.test(s));
    expect(notes).toEqual([]);
    const changed = realise(song, { ...recipe, key: 'D' }, [
      { kind: 'drop', at: { note: 'm0s1n1' }, value: true },
    ]);
    expect(differencesBetween(inC!, changed, whole)[0]!.says).toContain('right hand: different notes');
  });
  it('are told apart in runs of neighbors, hands together', () => {
    const says = (...hands: string[]) => hands.map((hand) => `${hand} hand: different notes`);
    expect(
      runsOf([
        { measure: 0, other: 0, says: [...says('right', 'left'), 'different pedal'] },
        { measure: 1, other: 1, says: [...says('right', 'left'), 'different pedal'] },
        { measure: 2, other: 2, says: says('left') },
        { measure: 4, other: 4, says: says('left') },
      ]),
    ).toEqual([
      { from: 0, to: 1, says: 'different notes in both hands, different pedal' },
      { from: 2, to: 2, says: 'different notes in the left hand' },
      { from: 4, to: 4, says: 'different notes in the left hand' },
    ]);
  });
  it('differ by an introduction that only one has, and nowhere behind it', () => {
    const sung = { ...DEFAULT_RECIPE, style: 'sing-along' as const };
    const [none, two] = [
      realise(song, { ...sung, introduction: 0 }, []),
      realise(song, { ...sung, introduction: 2 }, []),
    ];
    const found = differencesBetween(two, none, { from: 0, to: 1 });
    expect(found.map((d) => d.other)).toEqual([null, null]);
  });
});
