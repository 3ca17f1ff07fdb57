import { describe, expect, it } from 'vitest';
import { scoreFrom } from '../test/shorthand';
import { muddyChords } from './muddy';

const found = (left: string, right = 'C5:4') => {
  const { parts, measures } = scoreFrom({ key: 'C', time: { beats: 4, beatType: 4 }, right, left });
  return muddyChords(parts[0]!, measures);
};

describe('chords that blur', () => {
  it.each([
    ['[G2 B2 D3]:4', 'G2 B2 D3 blurs so low: open it as G2 D3 B3, or play it an octave higher'],
    ['[C2 E2]:4', 'C2 E2 blurs so low: open it as C2 E3, or play it an octave higher'],
    ['[A2 C3]:4', 'A2 C3 blurs so low: open it as A2 C4, or play it an octave higher'],
  ])('%s', (left, text) => {
    expect(found(left).map((m) => m.text)).toEqual([text]);
  });
  it.each(['[G2 D3 B3]:4', '[C3 E3 G3]:4', '[C2 C3]:4', '[C2 G2]:4', 'G2:1 B2:1 D3:2'])(
    'but not %s',
    (left) => {
      expect(found(left)).toEqual([]);
    },
  );
  it('are said once in a measure, with hand and place', () => {
    const two = found('[G2 B2]:1 [G2 B2]:1 r:2 | [G2 B2]:4', 'C5:4 | C5:4');
    expect(two.map(({ measure, hand, notes }) => [measure, hand, notes.length])).toEqual([
      [0, 'left', 2],
      [1, 'left', 2],
    ]);
  });
});
