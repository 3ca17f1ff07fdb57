import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readAbc } from '../../io/abc/read';
import { chordSymbol, chordTones } from '../../theory/chord';
import { pitchClass } from '../../theory/fifths';
import { keyName } from '../../theory/key';
import { measureAt } from '../../score/query';
import { harmonise, isBareTune } from './harmonise';
import { keyOf } from '../home';
import { withHeardMode } from '../key';
import { chordsOf } from '../harmony';

const tune = (key: string, metre: string, notes: string) =>
  withHeardMode(readAbc(`X:1\nT:T\nM:${metre}\nL:1/4\nK:${key}\n${notes}\n`).score);

/** "1 C, 2 F": each chord with the measure in which it begins. */
const chords = (key: string, metre: string, notes: string): string => {
  const score = tune(key, metre, notes);
  return harmonise(score)
    .map(
      ({ onset, chord }) => `${measureAt(score.measures, onset).number} ${chord ? chordSymbol(chord) : '–'}`,
    )
    .join(', ');
};

describe('a bare tune is harmonized', () => {
  it('by I, IV and V, at half a measure where the tune asks for it, and ends by V7 and I', () =>
    expect(chords('C', '4/4', 'C C G G | A A G2 | F F E E | D D C2 |]')).toBe(
      '1 C, 2 F, 2 C, 3 F, 3 C, 4 G7, 4 C',
    ));
  it('so that steps pass and leaps outline one chord', () => {
    // Down the scale from tonic to dominant: passing notes change nothing.
    expect(chords('C', '4/4', 'c B/A/ G2 | G A/B/ c2 |]')).toBe('1 C');
    // A broken chord of the fourth degree is that chord.
    expect(chords('C', '4/4', 'c c c2 | f a c2 | G B d2 | c4 |]')).toBe('1 C, 2 F, 3 G7, 4 C');
  });
  it('phrases stay open on V, and the last chord is home', () => {
    const open = chords('C', '4/4', 'E E F G | G F E D | C C D E | D4 | E E F G | G F E D | C C D E | C4 |]');
    expect(open).toMatch(/, 4 G7?(,|$)/);
    expect(open).toMatch(/ C$/);
  });
  it('minor takes its V with the raised leading note, and no V where the tune has it natural', () => {
    expect(chords('Am', '3/4', 'A2 B | c2 A | B A ^G | A3 |]')).toBe('1 Am, 3 E7, 4 Am');
    expect(chords('Am', '3/4', 'A2 B | c2 A | G2 G | A3 |]')).not.toContain('E7');
  });
  it('a leading note on the last beat that goes home has its V there, one that passes has none', () => {
    expect(chords('Am', '3/4', 'A2 B | c2 B | A2 ^G | A3 |]')).toBe('1 Am, 3 E7, 4 Am');
    expect(chords('C', '3/4', 'E2 D | E2 G | C2 B, | C3 |]')).toBe('1 C, 3 G7, 4 C');
    // Between two beats it passes, and inside a phrase in major a step is a step.
    expect(chords('Am', '3/4', 'A2 B | c2 B | A ^G/A/ B | A3 |]')).not.toContain('1 Am, 3 E7, 3');
    expect(chords('C', '3/4', 'C2 B, | C2 E | G2 E | D2 D | C3 |]')).toMatch(/^1 C, 4/);
  });
  it('has a secondary dominant only where the tune has the altered note', () => {
    expect(chords('C', '4/4', 'c2 c2 | d2 ^f2 | g2 g2 | c4 |]')).toBe('1 C, 2 D7, 3 G7, 4 C');
    expect(chords('C', '4/4', 'c2 c2 | d2 f2 | g2 g2 | c4 |]')).not.toContain('D7');
  });
  it('modes close by their own neighbours of home', () => {
    expect(chords('Ddor', '4/4', 'd2 A2 | c2 G2 | G2 E2 | D4 |]')).toBe('1 Dm, 2 C, 4 Dm');
    expect(chords('Gmix', '4/4', 'g2 d2 | f2 c2 | d2 B2 | G4 |]')).toBe('1 G, 2 F, 3 G');
    expect(chords('Ephr', '4/4', 'e2 B2 | f2 c2 | A2 F2 | E4 |]')).toMatch(/^1 Em, 2 F/);
  });
  it('what comes again is set again as it was, and a pickup has no chord of its own', () => {
    const twice = chords('G', '3/4', 'D | G2 A | B2 G | A2 D | D2 D | G2 A | B2 G | A2 F | G2 |]').split(
      ', ',
    );
    expect(twice[0]).toBe('0 –');
    const at = (n: number): string | undefined => twice.find((c) => c.startsWith(`${n} `))?.slice(2);
    expect(at(5) ?? 'goes on').toBe(at(1) && at(5) ? at(1) : 'goes on');
  });
  it.each([
    [
      'begins at home where it can, and hears a leap as a chord',
      'C',
      'G A B2 | F C E2 | C4',
      '1 C, 1 G, 2 F, 2 C',
    ],
    ['comes home by way of V', 'C', 'F G/ E/ A2 | B2 A2 | C4', '1 C, 1 F, 2 G7, 3 C'],
    ['V goes home', 'C', 'D C/ E/ D2 | D C A, D | A,3 C | C4', '1 G7, 2 C, 2 Dm, 3 F, 4 C'],
    ['a seventh is of its chord', 'C', 'E D F D | G2 A2 | c3 c | C4', '1 C, 1 G7, 2 C, 2 F, 3 C'],
    ['what passes is not of it', 'C', 'C F/ E/ F2 | D4 | D2 A,2 | C4', '1 F, 2 G, 3 F, 4 C'],
    ['a measure sung again is set again', 'C', 'C4 | A,3 D | A,3 D | C4', '1 C, 2 Dm, 4 C'],
    ['a dominant that leads nowhere is none', 'C', 'G2 D B, | ^C2 D2 | C4', '1 C, 1 G7, 3 C'],
    [
      'a phrase closes on V, not on ii',
      'C',
      'D2 E D | G4 | E2 C2 | D2 F F | F4 | B2 d e | ^d2 c f | C4',
      '1 G7, 2 C, 4 G, 5 F, 6 G7, 7 C',
    ],
    [
      'a phrase that ends on the fifth is left open',
      'C',
      'F2 E F | A A F2 | A d g2 | g4 | g g g g | g3 g | g g f f | C4',
      '1 F, 3 Dm, 3 G7, 5 C, 7 G7, 8 C',
    ],
    [
      'no raised leading note against a natural one',
      'Am',
      'E2 B,2 | A, B, C2 | D2 G2 | A4',
      '1 Am, 1 E7, 2 Am, 3 G7, 3 C, 4 Am',
    ],
  ])('%s', (_rule, key, notes, expected) => expect(chords(key, '4/4', `${notes} |]`)).toBe(expected));
  it('offers two other chords a place, each with the first note of the place or near it', () => {
    const proposed = harmonise(tune('C', '4/4', 'C C G G | A A G2 | F F E E | D D C2 |]'));
    for (const { chord, alternatives } of proposed) {
      expect(alternatives.length).toBe(2);
      expect(alternatives.map(chordSymbol)).not.toContain(chordSymbol(chord!));
    }
    expect(alternatives(proposed, 1)).toContain('Dm');
  });
  it('is said to be proposed', () => {
    const score = tune('C', '4/4', 'C C G G | C4 |]');
    expect(chordsOf(score).map((c) => c.from)).toEqual(['harmonised']);
    expect(isBareTune(tune('C', '4/4', '[CE] [CE] [EG]2 | [CE]4 |]'))).toBe(false);
    expect(isBareTune(readAbc('X:1\nM:4/4\nL:1/4\nK:C\n"C" C C G G |]\n').score)).toBe(false);
  });
  it('law: spans follow each other without gaps to the end, and the last chord is home', () => {
    const letters = fc.constantFrom('C', 'D', 'E', 'F', 'G', 'A', 'B', 'c', 'd');
    const measure = fc.tuple(letters, letters, letters, letters).map((l) => l.join(' '));
    fc.assert(
      fc.property(fc.array(measure, { minLength: 1, maxLength: 12 }), (measures) => {
        const score = tune('C', '4/4', `${measures.join(' | ')} | C4 |]`);
        const spans = harmonise(score);
        let at = 0;
        for (const { onset, duration } of spans) {
          expect(onset).toBe(at);
          at = onset + duration;
        }
        const last = spans.at(-1)!.chord!;
        expect(pitchClass(chordTones(last)[0]!)).toBe(pitchClass(tonic(score)));
      }),
      { numRuns: 60 },
    );
  });
});

const alternatives = (spans: ReturnType<typeof harmonise>, at: number): string[] =>
  spans[at]!.alternatives.map(chordSymbol);

const tonic = (score: Parameters<typeof keyOf>[0]): number => {
  const key = keyOf(score);
  return { C: 0, A: 3, D: 2, G: 1, E: 4, F: -1 }[keyName(key)[0]!]!;
};

describe('modes', () => {
  it('keep the home that a source names', () => {
    for (const [code, name] of [
      ['Ddor', 'D dorian'],
      ['Emin', 'E minor'],
      ['Amix', 'A mixolydian'],
      ['Bphr', 'B phrygian'],
      ['Flyd', 'F lydian'],
      ['G', 'G major'],
    ])
      expect(keyName(keyOf(tune(code!, '4/4', 'c4 | d4 |]')))).toBe(name);
  });
  it('are heard where the signature says nothing of them', () => {
    expect(keyName(keyOf(tune('C', '4/4', 'd2 A2 | d c A G | A2 D2 | D4 |]')))).toBe('D dorian');
    expect(keyName(keyOf(tune('D', '4/4', 'A2 e2 | a g e c | A2 B2 | A4 |]')))).toBe('A mixolydian');
    expect(keyName(keyOf(tune('C', '4/4', 'c2 G2 | e d c B | G2 E2 | C4 |]')))).toBe('C major');
    // A tune in C that only closes on its third is none.
    expect(keyName(keyOf(tune('C', '4/4', 'c2 G2 | c d e c | G2 c2 | E4 |]')))).toBe('C major');
  });
});
