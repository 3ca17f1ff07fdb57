import { describe, expect, it } from 'vitest';
import { TICKS_PER_QUARTER as Q } from '../score/ticks';
import { playbackOf } from './playback';

describe('a take heard again', () => {
  it('begins with its first key, in its own time, and ends a key where it is struck again', () => {
    const { notes, end, measures } = playbackOf(
      [
        { midi: 60, onset: 5.5 },
        { midi: 60, onset: 5 },
        { midi: 48, onset: 7, velocity: 20 },
      ],
      3,
    );
    expect(notes.map((n) => [n.midi, n.onset, n.duration, n.velocity, n.staff])).toEqual([
      [60, 0, Q / 2, 80, 1],
      [60, Q / 2, 0.7 * Q, 80, 1],
      [48, 2 * Q, 0.7 * Q, 20, 2],
    ]);
    expect(measures).toEqual([{ index: 3, onset: 0, length: end }]);
    expect(end).toBeCloseTo(2.7 * Q);
  });
  it('is silence where nothing was struck', () => {
    expect(playbackOf([], 0).notes).toEqual([]);
  });
});
