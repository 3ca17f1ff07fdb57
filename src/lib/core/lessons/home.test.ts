/** Results of a practice room that is one file: read back as they were, and refused in words where a letter is missing. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { toldStep } from '../test/told';
import { InputError } from '../io/inputError';
import {
  CONTENTS_HERE,
  contentsText,
  resultsIn,
  resultsInWords,
  resultsText,
  type HomeContents,
} from './home';

const sent = fc.array(
  fc.record({
    kind: fc.constant('practice' as const),
    token: fc.string({ unit: fc.constantFrom(...'abcdefgh0123'), minLength: 16, maxLength: 20 }),
    seconds: fc.integer({ min: 1, max: 3600 }),
    at: fc.constant('2026-12-01T16:00:00.000Z'),
  }),
  { maxLength: 20 },
);
const one = toldStep('a-token-of-twenty-11');

describe('results', () => {
  it('law: are read as they were written, whatever a message does around them and to their lines', () => {
    fc.assert(
      fc.property(sent, fc.string(), fc.integer({ min: 1, max: 60 }), (things, name, width) => {
        const text = resultsText(name.slice(0, 200), things);
        const broken = text.slice(4).replace(new RegExp(`(.{${width}})`, 'g'), '$1\n');
        const read = resultsIn(`Hello,\nhere they are:\n\nkp1.${broken}\n`);
        expect(read).toEqual({ name: name.slice(0, 200), sent: things });
      }),
    );
  });
  it('a week of them is a message, not a book', () => {
    const week = Array.from({ length: 40 }, (_, i) => toldStep(`a-token-of-twenty-${i + 10}`));
    expect(resultsText('Runa', week).length).toBeLessThan(1500);
  });
  it.each([
    ['cut off', (text: string) => text.slice(0, -4), 'cut off'],
    ['a letter lost', (text: string) => text.replace(/(kp1\..{20})./, '$1'), 'missing or changed'],
    ['something else', () => 'Tuesday at four', 'aren’t practice results'],
    ['nothing', () => '', 'aren’t practice results'],
  ])('%s: said in a sentence', (_what, change, says) => {
    const wrong = change(resultsText('Runa', [one]));
    expect(() => resultsIn(wrong)).toThrow(InputError);
    expect(() => resultsIn(wrong)).toThrow(says);
  });
  it('what is packed rightly but is no result is refused as well', () => {
    const strange = { ...one, step: 'x'.repeat(500) };
    expect(() => resultsIn(resultsText('Runa', [strange]))).toThrow('can’t be read');
  });
});

describe('results in words', () => {
  it.each([
    [[one], '1 result'],
    [[one, { kind: 'practice', token: 'minutes-of-twenty-1', seconds: 25 } as const], '1 result'],
    [
      [one, one, { kind: 'practice', token: 'minutes-of-twenty-1', seconds: 840 } as const],
      '2 results and 14 minutes of practice',
    ],
  ])('%#', (sent, says) => expect(resultsInWords(sent)).toBe(says));
});

describe('contents', () => {
  it('end nothing around them, and are found in a page once', () => {
    const contents: HomeContents = {
      id: 'a',
      name: '</script><script>alert(1)</script>',
      locale: { language: 'en-GB', firstDay: 1, hours: 24, noteNames: 'letters', paper: 'a4' },
      tasks: [],
      pieces: {},
    };
    const text = contentsText(contents);
    expect(text).not.toContain('<');
    expect(JSON.parse(text)).toEqual(contents);
    expect(JSON.parse(CONTENTS_HERE)).toBe('CONTENTS');
  });
});
