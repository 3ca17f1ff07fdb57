import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { chordSymbol, chordToneNames, type Chord } from './chord';
import { CHORD_KINDS, type ChordKindId } from './chordKinds';
import { parseChord } from './chordName';

describe('chord names', () => {
  it.each([
    ['C', 'C', 'C E G'],
    ['Am7', 'Am7', 'A C E G'],
    ['F#m7b5/A', 'F♯m7♭5/A', 'F♯ A C E'],
    ['Bbmaj7', 'B♭maj7', 'B♭ D F A'],
    ['CM7', 'Cmaj7', 'C E G B'],
    ['D-7', 'Dm7', 'D F A C'],
    ['G+', 'Gaug', 'G B D♯'],
    ['Bo7', 'Bdim7', 'B D F A♭'],
    ['Csus', 'Csus4', 'C F G'],
    ['G7sus4', 'G7sus4', 'G C D F'],
    ['Cadd9', 'C(add9)', 'C E G D'],
    ['C6/9', 'C6/9', 'C E G A D'],
    ['Cm6/9', 'Cm6/9', 'C E♭ G A D'],
    ['G13sus4', 'G13sus4', 'G C D F A E'],
    ['C7sus4/G', 'C7sus4/G', 'C F G B♭'],
    ['E7(#9)', 'E7(♯9)', 'E G♯ B D F𝄪'],
    ['A7b9', 'A7(♭9)', 'A C♯ E G B♭'],
    ['D7b5', 'D7(♭5)', 'D F♯ A♭ C'],
    ['E♭/G', 'E♭/G', 'E♭ G B♭'],
    ['Dm(maj7)', 'Dm(maj7)', 'D F A C♯'],
    ['Cno3', 'C(no3)', 'C G'],
    ['F13', 'F13', 'F A C E♭ G D'],
  ])('%s is %s: %s', (text, symbol, tones) => {
    const chord = parseChord(text) as Chord;
    expect(chordSymbol(chord)).toBe(symbol);
    expect(chordToneNames(chord)).toBe(tones);
  });
  it.each(['N.C.', 'NC', 'n.c.'])('%s is no chord', (text) => expect(parseChord(text)).toBeNull());
  it.each(['H', 'And', 'Go', 'Dear', 'a', 'Bad', 'C//', 'Cx9y', '', 'Ever'])('%j names none', (text) =>
    expect(parseChord(text)).toBeUndefined(),
  );
  it('law: every symbol that we write is read as the same chord', () => {
    const chord = fc.record({
      root: fc.integer({ min: -8, max: 12 }),
      kind: fc.constantFrom(...(Object.keys(CHORD_KINDS) as ChordKindId[])),
      bass: fc.option(fc.integer({ min: -8, max: 12 }), { nil: undefined }),
    });
    fc.assert(
      fc.property(chord, ({ root, kind, bass }) => {
        const written: Chord = { root, kind, ...(bass === undefined || bass === root ? {} : { bass }) };
        expect(parseChord(chordSymbol(written))).toEqual(written);
      }),
    );
  });
});
