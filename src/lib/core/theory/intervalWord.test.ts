import { describe, expect, it } from 'vitest';
import { distanceText, intervalWord } from './intervalWord';

describe('the word for a distance', () => {
  it.each([
    [0, 'nothing'],
    [1, 'a half step'],
    [-2, 'a whole step'],
    [6, 'a tritone'],
    [12, 'an octave'],
    [16, 'an octave and a major third'],
    [-24, '2 octaves'],
    [25, '2 octaves and a half step'],
  ])('%i half steps are %s', (halfSteps, text) => {
    expect(distanceText(halfSteps)).toBe(text);
  });
  it('counts staff positions for an interval', () => {
    expect([0, 1, 7, 9, 14, 20, 22].map(intervalWord)).toEqual([
      'unison',
      'second',
      'octave',
      'tenth',
      'double octave',
      'leap over two octaves',
      'leap over three octaves',
    ]);
  });
});
