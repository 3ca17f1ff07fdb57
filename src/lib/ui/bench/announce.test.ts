import { describe, expect, it } from 'vitest';
import { scoreFrom } from '$core/test/shorthand';
import { realise } from '$core/version/realise';
import { DEFAULT_RECIPE } from '$core/version/recipe';
import { announced, lengthText } from './announce';
import { shapeAt } from '$ui/keys/shape';

const song = scoreFrom({
  key: 'D',
  time: { beats: 4, beatType: 4 },
  right: 'F#5:1.5 E5:0.5 D5:2 | A5:4',
  left: '[D3 A3]:4 | [D3 A3]:4',
  chords: 'D | D',
});
const version = realise(song, { ...DEFAULT_RECIPE, level: 6, key: 'D' }, [
  { kind: 'finger', at: { note: 'm0s1n0' }, value: 3 },
]);
const note = (id: string) => version.score.parts[0]!.notes.find((n) => n.id === id)!;

describe('what a screen reader hears', () => {
  it('is where a note is, what it is, its finger and why', () => {
    expect(announced(version, note('m0s1n0'), 'the hand lies so')).toBe(
      'Measure 1, right hand, F sharp 5, dotted quarter, finger 3, your choice: the hand lies so',
    );
    expect(announced(version, note('m0s2n0'))).toMatch(
      /^Measure 1, left hand, D 3, in a chord of 2, whole note, finger \d, suggested\.$/,
    );
  });
  it('names lengths as a teacher does', () => {
    const length = (duration: number, more = {}) => lengthText({ ...note('m0s1n0'), duration, ...more });
    expect(length(5040)).toBe('eighth');
    expect(length(3360, { tuplet: { actual: 3, normal: 2 } })).toBe('eighth of a triplet');
    expect(length(20160, { tie: 'start' })).toBe('half note, tied on');
  });
});

describe('the shape under the hands', () => {
  it('is what is down, what stays and what comes next', () => {
    const { down, next, text } = shapeAt(version, 0);
    expect(down.map((k) => `${k.name}${k.finger > 0 ? '' : '?'} ${k.hand}`).sort()).toEqual([
      'A left',
      'D left',
      'F♯ right',
    ]);
    expect(next.map((k) => k.name)).toEqual(['E']);
    expect(text).toBe('D, A stay; next E');
  });
  it('has the fingers that are tried while they sound', () => {
    const { down } = shapeAt(version, 0, { ids: new Set(['m0s1n0']), fingers: { m0s1n0: 5 } });
    expect(down).toMatchObject([{ finger: 5, decided: false, name: 'F♯' }]);
  });
});
