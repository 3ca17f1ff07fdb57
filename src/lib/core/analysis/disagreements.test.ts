import { describe, expect, it } from 'vitest';
import { scoreFrom } from '../test/shorthand';
import { disagreements } from './disagreements';
import { chordsOf } from './harmony';

const found = (chords: string, right = 'E5:4 | A5:4', left = '[C3 G3]:4 | [F3 C4]:4') => {
  const score = scoreFrom({ key: 'C', time: { beats: 4, beatType: 4 }, right, left, chords });
  return disagreements(score, chordsOf(score));
};

describe('symbols and notes', () => {
  it('agree, or it is said where they do not and what sounds', () => {
    expect(found('C | F')).toEqual([]);
    expect(found('C | Em7')).toEqual([
      { measure: 1, symbol: 'Em7', sounds: expect.arrayContaining(['F', 'A', 'C']), heard: 'F' },
    ]);
  });
  it.each([
    ['a minor third under a major symbol', 'C | F', 'E5:4 | Ab5:4', '[C3 G3]:4 | [F3 C4]:4', 'Fm'],
    ['the relative minor', 'C | C', 'E5:4 | E5:4', '[C3 G3]:4 | [A2 C4]:4', 'Am'],
    ['the chord a third above', 'C | C', 'E5:4 | B4:4', '[C3 G3]:4 | [E3 G3]:4', 'Em'],
  ])('disagree by a single tone: %s', (_name, chords, right, left, heard) => {
    expect(found(chords, right, left)).toMatchObject([{ measure: 1, heard }]);
  });
  it.each([
    ['a seventh more', 'C | F', 'E5:4 | A5:4', '[C3 G3]:4 | [F3 C4 Eb4]:4'],
    ['a sixth more', 'C | F', 'E5:4 | D5:4', '[C3 G3]:4 | [F3 A3 C4]:4'],
    ['no third', 'C5 | F', 'G5:4 | C5:4', '[C3 G3]:4 | [F3 C4]:4'],
    ['a suspension over it', 'C | F', 'E5:4 | Bb5:2 A5:2', '[C3 G3]:4 | [F3 C4]:4'],
    ['an inversion', 'C | F', 'E5:4 | F5:4', '[C3 G3]:4 | [A2 C4]:4'],
  ])('do not disagree for %s', (_name, chords, right, left) => {
    expect(found(chords, right, left)).toEqual([]);
  });
  it('a line alone may lean and pass where the hand below it rests, but not miss the chord altogether', () => {
    expect(found('C | C', 'E5:4 | A4:1 C5:2 B4:1', '[C3 G3]:4 | r:4')).toEqual([]);
    expect(found('C | C', 'E5:4 | D5:2 F5:2', '[C3 G3]:4 | r:4')).toMatchObject([
      { measure: 1, symbol: 'C' },
    ]);
  });
  it('a melody alone is not held against its symbols', () => {
    expect(found('C | F', 'E5:2 G5:2 | A5:2 C6:1 E6:1', 'r:4 | r:4')).toEqual([]);
  });
});
