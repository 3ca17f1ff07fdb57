import { describe, expect, it } from 'vitest';
import { scoreFrom } from '../test/shorthand';
import { chordSymbol } from '../theory/chord';
import { chordRowText, readChordRow, symbolsOfRow, withChordRow } from './chordRow';

const { measures, chordSymbols } = scoreFrom({
  key: 'C',
  time: { beats: 4, beatType: 4 },
  right: 'C5:4 | D5:4 | E5:4',
  chords: 'C | G | Am',
});
const Q = 10080;
const text = (
  list: readonly { onset: number; chord: Parameters<typeof chordSymbol>[0] | null }[],
): string[] => list.map((s) => `${s.onset / Q} ${s.chord ? chordSymbol(s.chord) : 'none'}`);

describe('a row of chords', () => {
  it('is read place by place, and written back', () => {
    for (const row of ['C Am7', 'C . G7 .', '. . F', 'N.C. C'])
      expect(chordRowText(readChordRow(row)!)).toBe(row);
    expect(chordRowText(readChordRow('C | / | G')!)).toBe('C . G');
    for (const none of ['', '  ', 'quack', 'C quack']) expect(readChordRow(none)).toBeUndefined();
  });
  it('is spread evenly over its measure', () => {
    expect(text(symbolsOfRow('C . G7 .', measures[1]!))).toEqual(['4 C', '6 G7']);
    expect(symbolsOfRow('quack', measures[1]!)).toEqual([]);
  });
  it('replaces what stood in its measure; the chord over its end goes on behind it', () => {
    const [first] = chordSymbols;
    expect(text(withChordRow(chordSymbols, 'F . . G', measures[1]!, false))).toEqual([
      '0 C',
      '4 F',
      '7 G',
      '8 Am',
    ]);
    expect(text(withChordRow([first!], 'F', measures[1]!, false))).toEqual(['0 C', '4 F', '8 C']);
    expect(text(withChordRow([first!], 'F', measures[2]!, true))).toEqual(['0 C', '8 F']);
  });
});
