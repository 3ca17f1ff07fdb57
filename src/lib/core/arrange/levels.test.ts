import { describe, expect, it } from 'vitest';
import { LEVELS, levelSays } from './levels';

describe('what a level asks, in two lines', () => {
  it('are the hands, and what is to be read', () => {
    const [first] = LEVELS;
    expect(levelSays(first!)).toEqual([
      'Right hand: one note at a time. Left hand: one note at a time.',
      'Notes down to quarters, up to 1 sharp or flat, no pedal.',
    ]);
  });
  it('differ from level to level, and say where anything goes', () => {
    const all = LEVELS.map((level) => levelSays(level).join(' '));
    expect(new Set(all).size).toBe(LEVELS.length);
    expect(levelSays({ ...LEVELS[0]!, accidentals: null, shortestSimple: null, tuplets: 'any' })[1]).toBe(
      'Any rhythm, triplets, any key, no pedal.',
    );
  });
});
