import { expect, it } from 'vitest';
import { capital, inSentence } from './capital';
import { stepInSentence } from './lessons/steps';
import { plural } from './plural';

it('turns the noun, and the verb with it', () => {
  const repeats = { one: 'repeats', many: 'repeat' };
  expect([0, 1, 2].map((n) => plural(n, 'measure'))).toEqual(['0 measures', '1 measure', '2 measures']);
  expect([1, 3].map((n) => plural(n, 'measure', repeats))).toEqual([
    '1 measure repeats',
    '3 measures repeat',
  ]);
  expect(plural(2, 'choice is', 'choices are')).toBe('2 choices are');
  expect(plural(1, 'class', 'classes', repeats)).toBe('1 class repeats');
});

it('begins a sentence with a capital, and a built-in name in the middle of one small', () => {
  expect(capital('left hand')).toBe('Left hand');
  expect(inSentence('Waltz bass')).toBe('waltz bass');
  expect(stepInSentence('Right hand, counting aloud')).toBe('right hand, counting aloud');
  expect(stepInSentence('Play for Mom')).toBe('Play for Mom');
});
