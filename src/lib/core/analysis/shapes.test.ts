import { describe, expect, it } from 'vitest';
import { scoreFrom } from '../test/shorthand';
import { parseChord } from '../theory/chordName';
import type { Chord } from '../theory/chord';
import { chordsOf } from './harmony';
import { commonTones, shapesOf } from './shapes';

const time = { beats: 4, beatType: 4 };
const chord = (name: string): Chord => parseChord(name)!;

describe('one chord in several shapes', () => {
  const score = scoreFrom({
    key: 'C',
    time,
    right: 'E5:4 | D5:4 | C5:4 | G5:4',
    left: '[C3 E3 G3]:4 | [B2 D3 G3]:4 | [E3 G3 C4]:4 | [C3 E3 G3]:4',
    chords: 'C | G | C | C',
  });
  it('is listed with each shape and where', () => {
    // The last C goes on from the one before, so it begins no new chord.
    expect(shapesOf(score, chordsOf(score))).toEqual([
      {
        symbol: 'C',
        shapes: [
          { notes: 'C E G', measures: [0] },
          { notes: 'E G C', measures: [2] },
        ],
      },
    ]);
  });
});

describe('triads of the right hand over a bass', () => {
  const over = (right: string) => {
    const bass = scoreFrom({ key: 'C', time, right, left: 'C2:4 | C2:4 | C2:4 | F2:4' });
    return shapesOf(bass, chordsOf(bass)).map((s) => [s.symbol, s.shapes.map((v) => v.notes)]);
  };
  it('count as voicings where one chord stands in three shapes', () => {
    expect(over('[C4 E4 G4]:4 | [E4 G4 C5]:4 | [G4 C5 E5]:4 | [F4 A4 C5]:4')).toEqual([
      ['C', ['C E G', 'E G C', 'G C E']],
    ]);
    expect(over('[C4 E4 G4]:4 | [E4 G4 C5]:4 | [E4 G4 C5]:4 | [F4 A4 C5]:4')).toEqual([]);
  });
});

describe('from chord to chord', () => {
  it.each([
    ['C', 'Am', 'C E', 'A'],
    ['C', 'F', 'C', 'F A'],
    ['G7', 'C', 'G', 'C E'],
    ['C#m', 'A', 'C♯ E', 'A'],
    ['C', 'F#', '', 'F♯ A♯ C♯'],
  ])('%s to %s keeps %j and brings %j', (a, b, stay, move) => {
    const tones = commonTones(chord(a), chord(b));
    expect([[...tones.stay].sort().join(' '), tones.move.join(' ')]).toEqual([stay, move]);
  });
});
