import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { scoreFrom } from '../test/shorthand';
import { parseKey } from '../theory/key';
import { chordsOf } from './harmony';
import { hasProgression, loopName, loopOf, progressionIn, progressionOf } from './progression';

const charted = (chords: string, key = 'C') =>
  progressionOf(
    chordsOf(
      scoreFrom({
        key,
        time: { beats: 4, beatType: 4 },
        right: chords
          .split('|')
          .map(() => 'C5:4')
          .join(' | '),
        chords,
      }),
    ),
    parseKey(key)!,
  );

describe('a progression', () => {
  it.each([
    ['Am | F | C | G', 'C', '6 4 1 5'],
    ['Em | C | G | D7', 'G', '6 4 1 5'],
    ['C | C | F G | C', 'C', '1 4 5 1'],
    ['D | C | G | D', 'D', '1 ♭7 4 1'],
    ['Am | G | F | E7', 'a', '1 7 6 5'],
  ])('%s in %s is %s', (chords, key, degrees) => {
    expect(charted(chords, key === 'a' ? 'Am' : key).join(' ')).toBe(degrees);
  });

  it.each([
    ['6 4 1 5', '6 4 1 5'],
    ['6415', '6 4 1 5'],
    ['vi IV I V', '6 4 1 5'],
    ['vi-IV-I-V7', '6 4 1 5'],
    ['1 b7 4', '1 ♭7 4'],
    ['I–IV–V', '1 4 5'],
  ])('%s is looked for as %s', (text, degrees) => expect(progressionIn(text)?.join(' ')).toBe(degrees));
  it.each(['', 'waltz', '6 4', '6 4 9', 'evening 1 4 5', '12'])('%s is no progression', (text) =>
    expect(progressionIn(text)).toBeUndefined(),
  );

  it('is found where it stands on end', () => {
    const song = '1 6 4 5 6 4 1 5'.split(' ');
    expect(hasProgression(song, ['6', '4', '1', '5'])).toBe(true);
    expect(hasProgression(song, ['5', '6', '4'])).toBe(true);
    expect(hasProgression(song, ['1', '4'])).toBe(false);
    expect(hasProgression([], ['1'])).toBe(false);
  });

  it('goes round in a loop, which has one name wherever it begins', () => {
    expect(loopOf('6 4 1 5 6 4 1 5 6 4 1 5'.split(' '))).toEqual(['6', '4', '1', '5']);
    expect(loopOf('1 5 6 4 1 5 6 4 2 5 1'.split(' '))).toEqual(['1', '5', '6', '4']);
    expect(loopOf('1 4 5 1 6 2 5 1'.split(' '))).toBeUndefined();
    expect(loopName(['6', '4', '1', '5'])).toBe(loopName(['1', '5', '6', '4']));
    expect(loopName(['6', '4', '1', '5'])).not.toBe(loopName(['6', '4', '5', '1']));
  });

  it('law: a loop that goes round is found, whatever stands before it', () => {
    const degree = fc.constantFrom('1', '2', '3', '4', '5', '6');
    fc.assert(
      fc.property(
        fc.uniqueArray(degree, { minLength: 3, maxLength: 6 }),
        fc.integer({ min: 2, max: 5 }),
        (loop, times) => {
          const found = loopOf(['7', ...Array.from({ length: times }, () => loop).flat()])!;
          expect(loopName(found)).toBe(loopName(loop));
        },
      ),
    );
  });
});
