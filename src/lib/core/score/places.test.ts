import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { excerpt } from './excerpt';
import { beatAt, beatsIn, covers, follows, placesText, ticksOf, type Places } from './places';
import { TICKS_PER_QUARTER as Q } from './ticks';
import { scoreFrom } from '../test/shorthand';

const FOUR = { beats: 4, beatType: 4 };
const song = scoreFrom({
  key: 'C',
  time: FOUR,
  pickup: 1,
  right: 'G4:1 | C4:1 D4:1 E4:1 F4:1 | G4:4 | A4:2 B4:2 | C5:4',
});

describe('beats of a measure', () => {
  it('are counted as they are counted aloud: a pickup of one beat in four has the fourth', () => {
    expect(song.measures.map(beatsIn)).toEqual([
      [4, 4],
      [1, 4],
      [1, 4],
      [1, 4],
      [1, 4],
    ]);
  });
  it('are dotted in compound time, and eighths in seven', () => {
    const beats = (time: { beats: number; beatType: number }) =>
      beatsIn({ time, beginsAt: 0, length: (time.beats * 4 * Q) / time.beatType });
    expect(beats({ beats: 6, beatType: 8 })).toEqual([1, 2]);
    expect(beats({ beats: 7, beatType: 8 })).toEqual([1, 7]);
    expect(beats({ beats: 3, beatType: 2 })).toEqual([1, 3]);
  });
  it('are found by a tick', () => {
    expect([0, 1, 3].map((quarter) => beatAt(song.measures[1]!, Q + quarter * Q + 5))).toEqual([1, 2, 4]);
    expect(beatAt(song.measures[0]!, 0)).toBe(4);
  });
});

describe('places that begin or end at a beat', () => {
  it('go from the beginning of the one to the end of the other', () => {
    expect(ticksOf(song.measures, { from: 1, to: 2, fromBeat: 3, toBeat: 2 })).toEqual({
      start: 3 * Q,
      end: 7 * Q,
    });
    expect(ticksOf(song.measures, { from: 0, to: 1, toBeat: 1 })).toEqual({ start: 0, end: 2 * Q });
  });
  it('hold others, and follow one another at the beat', () => {
    const whole: Places = { from: 1, to: 3 };
    expect(covers(whole, { from: 1, to: 3, fromBeat: 2, toBeat: 2 })).toBe(true);
    expect(covers({ from: 1, to: 3, fromBeat: 2 }, whole)).toBe(false);
    expect(covers({ from: 1, to: 3, toBeat: 2 }, whole)).toBe(false);
    expect(covers(whole, whole)).toBe(true);
    expect(follows({ from: 0, to: 1, toBeat: 2 }, { from: 1, to: 3, fromBeat: 3 })).toBe(true);
    expect(follows({ from: 0, to: 1, toBeat: 2 }, { from: 1, to: 3, fromBeat: 4 })).toBe(false);
    expect(follows({ from: 0, to: 1, toBeat: 2 }, { from: 2, to: 3 })).toBe(false);
    expect(follows({ from: 0, to: 1 }, { from: 2, to: 3 })).toBe(true);
    expect(follows({ from: 0, to: 1 }, { from: 2, to: 3, fromBeat: 2 })).toBe(false);
  });
  it('are said as a musician says them', () => {
    const numbers = song.measures.map((m) => m.number);
    const says = (places: Places): string => placesText(numbers, places);
    expect(says({ from: 1, to: 4 })).toBe('measures 1 to 4');
    expect(says({ from: 1, to: 4, fromBeat: 3 })).toBe('measure 1 beat 3 to measure 4');
    expect(says({ from: 0, to: 2, toBeat: 2 })).toBe('pickup to measure 2 beat 2');
    expect(says({ from: 1, to: 1, fromBeat: 2, toBeat: 3 })).toBe('measure 1, beats 2 to 3');
    expect(says({ from: 1, to: 1, fromBeat: 2, toBeat: 2 })).toBe('measure 1 beat 2');
    expect(says({ from: 1, to: 1, fromBeat: 2 })).toBe('measure 1 from beat 2');
    expect(says({ from: 1, to: 1, toBeat: 2 })).toBe('measure 1 up to beat 2');
  });
});

describe('an excerpt that begins or ends at a beat', () => {
  it('has the notes struck there, the last no longer than it', () => {
    const { measures, parts } = excerpt(song, { from: 1, to: 2, fromBeat: 3, toBeat: 2 });
    expect(parts[0]!.notes.map((n) => [n.onset / Q, n.duration / Q])).toEqual([
      [3, 1],
      [4, 1],
      [5, 2],
    ]);
    expect(measures.map((m) => [m.start / Q, m.length / Q, m.beginsAt / Q])).toEqual([
      [3, 2, 2],
      [5, 2, 0],
    ]);
  });
  it('law: two that follow one another have together what one over both has', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 4 }), fc.integer({ min: 2, max: 4 }), (measure, beat) => {
        const struck = (places: Places): string[] => excerpt(song, places).parts[0]!.notes.map((n) => n.id);
        const first: Places = { from: 0, to: measure, toBeat: beat - 1 };
        const second: Places = { from: measure, to: 4, fromBeat: beat };
        expect(follows(first, second)).toBe(true);
        expect([...struck(first), ...struck(second)]).toEqual(struck({ from: 0, to: 4 }));
      }),
    );
  });
});
