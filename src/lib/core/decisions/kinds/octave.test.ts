import { describe, expect, it } from 'vitest';
import { pitchName } from '../../theory/pitch';
import { scoreFrom } from '../../test/shorthand';
import { realise } from '../../version/realise';
import { DEFAULT_RECIPE } from '../../version/recipe';
import type { Decision } from '../registry';
import { octave } from './octave';

const song = scoreFrom({
  key: 'C',
  time: { beats: 4, beatType: 4 },
  right: 'C5:1 E5:1 G5:2 | C5:4',
  left: 'C3:4 | C3:4',
  chords: 'C | C',
});
const at = { note: 'm0s1n1' };
const decided = (value: -2 | -1 | 1 | 2): Decision[] => [{ kind: 'octave', at, value }];
const pitches = (decisions: readonly Decision[]): string[] =>
  realise(song, DEFAULT_RECIPE, decisions)
    .score.parts[0]!.notes.filter((n) => n.staff === 1)
    .map((n) => pitchName(n.pitch));

describe('the octave of a note', () => {
  it('moves that note and no other, and keeps its finger', () => {
    expect(pitches([])).toEqual(['C5', 'E5', 'G5', 'C5']);
    expect(pitches(decided(1))).toEqual(['C5', 'E6', 'G5', 'C5']);
    expect(pitches(decided(-1))).toEqual(['C5', 'E4', 'G5', 'C5']);
    expect(realise(song, DEFAULT_RECIPE, decided(1)).fingers[at.note]).toBeDefined();
  });
  it('off the keyboard it is named as a violation', () => {
    const { violations } = realise(song, { ...DEFAULT_RECIPE, keyboard: 49 }, decided(2));
    expect(violations.map((v) => v.limit)).toContain('range of the keyboard');
  });
  it('goes step by step by its keys, and back to where it was', () => {
    const [up, down] = octave.keys!;
    const situation = undefined as never;
    expect([undefined, 1, 2, -1, -2].map((now) => up!.next(now as 1 | undefined, situation))).toEqual([
      1,
      2,
      2,
      undefined,
      -1,
    ]);
    expect([undefined, 1, 2, -1, -2].map((now) => down!.next(now as 1 | undefined, situation))).toEqual([
      -1,
      undefined,
      1,
      -2,
      -2,
    ]);
    expect(octave.says(-2)).toBe('two octaves lower');
  });
});
