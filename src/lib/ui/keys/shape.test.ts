import { scoreFrom } from '$core/test/shorthand';
import { realise } from '$core/version/realise';
import { DEFAULT_RECIPE } from '$core/version/recipe';
import { describe, expect, it } from 'vitest';
import { shapeAt } from './shape';

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
