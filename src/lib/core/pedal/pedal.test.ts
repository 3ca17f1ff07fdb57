import { describe, expect, it } from 'vitest';
import { chordsOf } from '../analysis/harmony';
import { soundingNotes } from '../score/query';
import { TICKS_PER_QUARTER as Q } from '../score/ticks';
import { scoreFrom } from '../test/shorthand';
import { pedalPerHarmony } from './pedal';

const marks = (right: string, left: string, chords: string, lifts: number[] = []): string => {
  const score = scoreFrom({ key: 'C', time: { beats: 4, beatType: 4 }, right, left, chords });
  const notes = soundingNotes(score.parts[0]!.notes);
  return pedalPerHarmony(notes, chordsOf(score), new Set(lifts.map((l) => l * Q)))
    .map((p) => `${p.type}@${p.onset / Q}`)
    .join(' ');
};

describe('pedal per harmony', () => {
  it('goes down with the first bass, is cleared with each chord and comes up at the end', () => {
    expect(marks('E5:4 | F5:4 | E5:4', 'C3:4 | F3:4 | C3:4', 'C | F | C')).toBe(
      'start@0 change@4 change@8 stop@12',
    );
  });
  it('stays down while the chord stays', () => {
    expect(marks('E5:4 | G5:4', 'C3:2 G3:2 | C3:4', 'C | ')).toBe('start@0 stop@8');
  });
  it('comes up where both hands rest', () => {
    expect(marks('E5:2 r:2 | F5:4', 'C3:2 r:2 | F3:4', 'C | F')).toBe('start@0 stop@2 start@4 stop@8');
  });
  it('is never held over a change of chord without a new bass', () => {
    expect(marks('E5:2 F5:2 | E5:4', 'C3:2 r:2 | C3:4', 'C F | C')).toBe('start@0 stop@2 start@4 stop@8');
  });
  it('is lifted at a phrase end', () => {
    expect(marks('E5:4 | G5:4', 'C3:4 | C3:4', 'C | ', [4])).toBe('start@0 change@4 stop@8');
  });
});
