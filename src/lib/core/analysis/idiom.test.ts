import { describe, expect, it } from 'vitest';
import { readAbc } from '../io/abc/read';
import { scoreFrom, type Line } from '../test/shorthand';
import { idiomOf } from './idiom';
import type { Idiom } from './idioms';

const four = { beats: 4, beatType: 4 };
const three = { beats: 3, beatType: 4 };
const seen = (line: Partial<Line> & Pick<Line, 'right'>): Idiom =>
  idiomOf(scoreFrom({ key: 'C', time: four, ...line })).idiom;
const times = (count: number, measure: string): string =>
  Array.from({ length: count }, () => measure).join(' | ');

describe('the idiom of a piece', () => {
  it.each([
    ['R:waltz\nM:3/4', 'waltz'],
    ['R:slow march\nM:4/4', 'march'],
    ['R:hornpipe\nM:4/4', 'dance'],
    ['T:The Lantern Rag\nM:2/4', 'rag'],
    ['T:Hymn of the Weir\nM:4/4', 'hymn'],
    ['T:The March Hare\nM:4/4', 'plain'],
    ['T:Dancing Shoes\nM:4/4', 'plain'],
  ] as const)('is what it says of itself: %s', (head, idiom) => {
    expect(idiomOf(readAbc(`X:1\n${head}\nL:1/4\nK:C\nCDEF|GABc|\n`).score).idiom).toBe(idiom);
  });
  it.each([
    ['walking', 'C3:0.5 E3:0.5 G3:0.5 A3:0.5 Bb3:0.5 A3:0.5 G3:0.5 E3:0.5'],
    ['walking', 'C3:1 D3:1 E3:1 F#3:1'],
    ['tango', 'C3:1.5 G3:0.5 [E3 G3]:1 [E3 G3]:1'],
    ['bossa', 'C3:1.5 G3:0.5 G3:1.5 C3:0.5'],
    ['riff', 'E2:1 E2:0.5 G2:0.5 A2:1 G2:0.5 E2:0.5'],
    ['plain', 'C3:1 G3:1 E3:1 G3:1'],
    ['plain', 'C3:2 G3:2'],
  ])('is %s by what the left hand has in each measure: %s', (idiom, measure) => {
    expect(seen({ right: times(4, 'E4:1 G4:1 E4:2'), left: times(4, measure) })).toBe(idiom);
  });
  it('is a study where it runs in scales, and a prelude where its chords are broken between the hands', () => {
    const left = times(4, 'C3:4');
    const run =
      'C4:0.25 D4:0.25 E4:0.25 F4:0.25 G4:0.25 A4:0.25 B4:0.25 C5:0.25 B4:0.25 A4:0.25 G4:0.25 F4:0.25 E4:0.25 D4:0.25 C4:0.5';
    expect(seen({ right: times(4, run), left })).toBe('study');
    expect(seen({ right: times(4, times(8, 'E4:0.25 C5:0.25').replaceAll(' | ', ' ')), left })).toBe(
      'prelude',
    );
  });
  it('is in two voices where each hand plays a melody', () => {
    const upper = 'C5:1 D5:0.5 E5:0.5 F5:2 | E5:1 D5:1 C5:1 B4:1 | C5:2 D5:1 E5:1 | F5:0.5 E5:0.5 D5:1 C5:2';
    const lower = 'C3:2 D3:1 E3:1 | C3:1 D3:0.5 E3:0.5 F3:2 | E3:1 D3:1 C3:1 B2:1 | A2:1 B2:1 C3:2';
    expect(seen({ right: upper, left: lower })).toBe('voices');
    expect(seen({ right: upper, left: times(4, 'C3:4') })).toBe('plain');
  });
  it('is a waltz by a low note and the chord twice', () => {
    const left = times(4, 'C3:1 [E3 G3]:1 [E3 G3]:1');
    expect(seen({ time: three, right: times(4, 'E4:2 G4:1'), left })).toBe('waltz');
    expect(seen({ time: three, right: times(4, 'E4:2 G4:1'), left: times(4, 'C3:3') })).toBe('plain');
  });
  it('is a march by low notes and chords in turn, and a rag under a syncopated tune', () => {
    const left = times(4, 'C3:1 [E3 G3]:1 G2:1 [E3 G3]:1');
    expect(seen({ right: times(4, 'E4:1 G4:1 E4:1 C4:1'), left })).toBe('march');
    expect(seen({ right: times(4, 'E4:0.5 G4:1 E4:0.5 C4:0.5 E4:1 G4:0.5'), left })).toBe('rag');
  });
  it('is a hymn where all voices move together', () => {
    const right = times(4, '[C4 E4]:1 [D4 F4]:1 [E4 G4]:2');
    expect(seen({ right, left: times(4, '[C3 G3]:1 [B2 G3]:1 [C3 G3]:2') })).toBe('hymn');
    expect(seen({ right, left: times(4, 'C3:4') })).not.toBe('hymn');
  });
  it('is a ballad where it is slow over broken chords', () => {
    const line = { right: times(4, 'E4:2 G4:2'), left: times(4, 'C3:1 G3:1 E4:1 G3:1') };
    expect(seen({ ...line, tempo: 66 })).toBe('ballad');
    expect(seen({ ...line, tempo: 120 })).toBe('plain');
  });
  it('is a dance where eighths run in threes', () => {
    const jig = {
      time: { beats: 6, beatType: 8 },
      right: times(4, 'G4:0.5 A4:0.5 B4:0.5 d:0.5 B4:0.5 G4:0.5'.replace('d:', 'D5:')),
    };
    expect(seen({ ...jig, tempo: 160 })).toBe('dance');
    expect(seen({ ...jig, tempo: 70 })).toBe('plain');
  });
});
