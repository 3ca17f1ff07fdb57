import { describe, expect, it } from 'vitest';
import { soundingNotes } from '../score/query';
import type { TimeSignature } from '../score/score';
import { TICKS_PER_QUARTER as Q } from '../score/ticks';
import { scoreFrom } from '../test/shorthand';
import { countMeasures, countsInWords } from './count';

const counted = (right: string, beats: number, beatType: number, pickup = 0): string[] => {
  const time: TimeSignature = { beats, beatType };
  const score = scoreFrom({ key: 'C', time, pickup, right });
  return countMeasures(score.measures, soundingNotes(score.parts[0]!.notes)).map((m) =>
    countsInWords(m.counts),
  );
};

describe('counting in numbers', () => {
  it.each([
    ['quarters', 'C4:1 C4:1 C4:1 C4:1', 4, 4, '1 2 3 4'],
    ['eighths', 'C4:0.5 C4:0.5 C4:1 C4:2', 4, 4, '1 & 2 3 (4)'],
    ['a dotted quarter and an eighth', 'C4:1.5 C4:0.5 C4:2', 4, 4, '1 (2) & 3 (4)'],
    ['sixteenths', 'C4:0.25 C4:0.25 C4:0.25 C4:0.25 C4:1', 2, 4, '1 e & a 2'],
    ['a dotted eighth and a sixteenth', 'C4:0.75 C4:0.25 C4:1', 2, 4, '1 a 2'],
    ['a whole note', 'C4:4', 4, 4, '1 (2) (3) (4)'],
    ['rests', 'C4:1 r:1 C4:1', 3, 4, '1 (2) 3'],
    ['a measure of rest', 'r:3', 3, 4, '(1) (2) (3)'],
    ['6/8 in two', 'C4:0.5 C4:0.5 C4:0.5 C4:1.5', 6, 8, '1 & a 2'],
    ['6/8 with a quarter and an eighth', 'C4:1 C4:0.5 C4:1.5', 6, 8, '1 a 2'],
    ['3/8 in three', 'C4:0.5 C4:1', 3, 8, '1 2 (3)'],
    ['cut time in halves', 'C4:1 C4:1 C4:2', 2, 2, '1 & 2'],
    ['five', 'C4:2 C4:3', 5, 4, '1 (2) 3 (4) (5)'],
  ])('%s', (_name, right, beats, beatType, expected) => {
    expect(counted(right, beats, beatType)).toEqual([expected]);
  });

  it('counts a pickup from where it stands', () => {
    expect(counted('D4:1 | G4:4', 4, 4, 1)).toEqual(['4', '1 (2) (3) (4)']);
    expect(counted('D4:0.5 | G4:4', 4, 4, 0.5)).toEqual(['&', '1 (2) (3) (4)']);
    expect(counted('D4:0.5 E4:0.5 | G4:3', 3, 4, 1)).toEqual(['3 &', '1 (2) (3)']);
    expect(counted('D4:0.5 | G4:3', 6, 8, 0.5)).toEqual(['a', '1 (2)']);
  });

  it('says triplets as a word', () => {
    const score = scoreFrom({ key: 'C', time: { beats: 2, beatType: 4 }, right: 'C4:1 C4:1' });
    const third = Q / 3;
    const notes = [0, 1, 2].map((i) => ({ onset: i * third, duration: third }));
    const [measure] = countMeasures(score.measures, [...notes, { onset: Q, duration: Q }]);
    expect(countsInWords(measure!.counts)).toBe('1 trip let 2');
  });

  it('counts a note held over the barline as held', () => {
    expect(counted('C4:4 | r:4', 4, 4)[1]).toBe('(1) (2) (3) (4)');
    const score = scoreFrom({ key: 'C', time: { beats: 4, beatType: 4 }, right: 'C4:4 | r:4' });
    const [, second] = countMeasures(score.measures, [{ onset: 0, duration: 6 * Q }]);
    expect(second!.counts.map((c) => c.kind)).toEqual(['held', 'held', 'rest', 'rest']);
  });
});
