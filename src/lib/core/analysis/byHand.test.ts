import { describe, expect, it } from 'vitest';
import { scoreFrom } from '../test/shorthand';
import { comparedByHand, comparedLines, lineText } from './byHand';

const time = { beats: 4, beatType: 4 };
/** What is said of the third and fourth measures beside the first two, hand by hand. */
function said(right: string, left: string, by = 0): string[] {
  const score = scoreFrom({ key: 'C', time, right, left });
  const numbers = score.measures.map((m) => m.number);
  return comparedByHand(comparedLines(score), score.measures, [0, 1], [2, 3], by).map((line) =>
    lineText(line, numbers),
  );
}
const TUNE = 'C5:1 D5:1 E5:1 F5:1 | G5:1 E5:1 C5:2';
const BASS = 'C3:1 G3:1 C3:1 G3:1 | C3:1 G3:1 C3:1 G3:1';
const right = (later: string): string => said(`${TUNE} | ${later}`, `${BASS} | ${BASS}`)[0]!;
const left = (later: string): string => said(`${TUNE} | ${TUNE}`, `${BASS} | ${later}`)[1]!;

describe('a section beside the one that it comes from', () => {
  it('is the same, hand by hand, also where it is moved', () => {
    expect(right(TUNE)).toBe('the right hand is the same');
    expect(said(`${TUNE} | D5:1 E5:1 F#5:1 G5:1 | A5:1 F#5:1 D5:2`, `${BASS} | ${BASS}`, 2)[0]).toBe(
      'the right hand is the same',
    );
  });
  it('has the same first notes and another ending, or another beginning, to the half measure', () => {
    expect(right('C5:1 D5:1 E5:1 F5:1 | G5:1 E5:1 D5:2')).toBe(
      'the right hand has the same six notes, then another ending from measure 4 (second half) on',
    );
    expect(right('E5:1 D5:1 E5:1 F5:1 | G5:1 E5:1 C5:2')).toBe(
      'the right hand has another beginning up to measure 3 (first half), then the same six notes',
    );
  });
  it('has other notes, more, fewer, or another rhythm, and where', () => {
    expect(right('C5:1 D5:1 E5:1 A5:1 | G5:1 E5:1 C5:2')).toBe(
      'the right hand has other notes in measure 3 (second half)',
    );
    expect(right('C5:1 D5:1 E5:1 F5:1 | G5:0.5 F5:0.5 E5:1 C5:2')).toBe(
      'the right hand has more notes in measure 4 (first half)',
    );
    expect(left('C3:1 r:1 C3:1 G3:1 | C3:1 r:1 C3:1 r:1')).toBe(
      'the left hand has fewer notes in measures 3 (first half) and 4',
    );
    expect(right('C5:2 D5:1 E5:1 | F5:1 G5:1 E5:1 C5:1')).toBe(
      'the right hand has the same notes in another rhythm in measures 3 and 4',
    );
  });
  it('holds, rests or comes in', () => {
    expect(left('C3:4 | C3:4')).toBe('the left hand holds');
    expect(left('[C3 G3]:4 | [C3 G3]:4')).toBe('the left hand holds');
    expect(left('r:4 | r:4')).toBe('the left hand rests');
    expect(said(`${TUNE} | ${TUNE}`, `r:4 | r:4 | ${BASS}`)[1]).toBe('the left hand comes in');
  });
});
