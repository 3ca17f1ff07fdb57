import { describe, expect, it } from 'vitest';
import { scoreFrom } from '../test/shorthand';
import { measuresAgain, notesAgain } from './again';

const song = scoreFrom({
  key: 'C',
  time: { beats: 4, beatType: 4 },
  right: 'C5:1 E5:1 G5:2 | A5:4 | C5:1 E5:1 G5:2 | C5:1 E5:2 G5:1 | C5:1 E5:1 G5:2',
  left: 'C3:4 | F3:4 | C3:4 | C3:4 | G3:4',
  chords: 'C | F | C | C | G',
});

describe('what comes again', () => {
  it('of a hand is the same keys at the same places, whatever the other hand does', () => {
    expect([...notesAgain(song, ['m0s1n1'])]).toEqual([['m0s1n1', ['m2s1n1', 'm4s1n1']]]);
    expect([...notesAgain(song, ['m0s2n0', 'm1s2n0'])]).toEqual([['m0s2n0', ['m2s2n0', 'm3s2n0']]]);
  });
  it('of a measure is the same in both hands', () => {
    expect(measuresAgain(song, 'm0')).toEqual(['m2']);
    expect(measuresAgain(song, 'm1')).toEqual([]);
  });
});
