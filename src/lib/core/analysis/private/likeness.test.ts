import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { scoreFrom } from '../../test/shorthand';
import { contentsOf, difference, likeness, shiftBetween, type MeasureContent } from './likeness';

const four = { beats: 4, beatType: 4 } as const;
const measures = (...right: string[]): MeasureContent[] =>
  contentsOf(scoreFrom({ key: 'C', time: four, right: right.join(' | ') }));

/** A measure of quarters by MIDI numbers, and the same moved. */
const NAMES = ['C', 'C#', 'D', 'Eb', 'E', 'F', 'F#', 'G', 'Ab', 'A', 'Bb', 'B'];
const quarters = (keys: readonly number[]): string =>
  keys.map((k) => `${NAMES[k % 12]}${Math.floor(k / 12) - 1}:1`).join(' ');
const keys = fc.array(fc.integer({ min: 55, max: 79 }), { minLength: 4, maxLength: 4 });

describe('how alike two measures are', () => {
  it('note for note the same is one, nothing in common is nought', () => {
    const [a, b, c] = measures('C4:1 D4:1 E4:2', 'C4:1 D4:1 E4:2', 'F4:1 G4:1 A4:2') as [
      MeasureContent,
      MeasureContent,
      MeasureContent,
    ];
    expect(a.key).toBe(b.key);
    expect(likeness(a, b)).toBe(1);
    expect(likeness(a, c)).toBe(0);
  });
  it('counts strokes at the same place and of the same key, of the longer measure', () => {
    const [a, b, c] = measures('C4:1 D4:1 E4:1 F4:1', 'C4:1 D4:1 E4:1 G4:1', 'C4:2 E4:2') as [
      MeasureContent,
      MeasureContent,
      MeasureContent,
    ];
    expect(likeness(a, b)).toBeCloseTo(3 / 4);
    // Two of four strokes stand where the other's do.
    expect(likeness(a, c)).toBeCloseTo(2 / 4);
  });
  it('other voicings is not the same, and has no other note', () => {
    const [a, b] = measures('C4:1 D4:1 E4:2', 'C4:1 D4:1 E4:1 r:1') as [MeasureContent, MeasureContent];
    expect(a.key).not.toBe(b.key);
    expect(likeness(a, b)).toBe(1);
    expect(difference(a, b)).toEqual({ now: [], before: [] });
  });
  it('rests are alike', () => {
    const [a, b, c] = measures('r:4', 'r:4', 'C4:4') as [MeasureContent, MeasureContent, MeasureContent];
    expect(likeness(a, b)).toBe(1);
    expect(likeness(a, c)).toBe(0);
  });
  it('names what is there now and what was there before', () => {
    const [a, b] = measures('C4:1 D4:1 E4:2', 'C4:1 Eb4:1 E4:2') as [MeasureContent, MeasureContent];
    expect(difference(a, b)).toEqual({ now: ['E♭4'], before: ['D4'] });
    expect(difference(b, a)).toEqual({ now: ['D4'], before: ['E♭4'] });
  });
  it('in a chart a measure is what chord it holds, be it said there or held on', () => {
    const chart = contentsOf(
      scoreFrom({ key: 'C', time: four, right: 'r:4 | r:4 | r:4 | r:4', chords: 'C | | F | C' }),
    );
    expect(chart[0]!.key).toBe(chart[3]!.key);
    expect(chart[2]!.key).not.toBe(chart[0]!.key);
  });
  it('law: moved as a whole a measure is like itself, by the interval that it was moved by', () =>
    fc.assert(
      fc.property(keys, fc.integer({ min: -7, max: 7 }), (own, by) => {
        const [a, b] = measures(quarters(own), quarters(own.map((k) => k + by))) as [
          MeasureContent,
          MeasureContent,
        ];
        expect(shiftBetween(a, b)).toBe(by);
        expect(likeness(a, b, by)).toBe(1);
        expect(a.shape).toBe(b.shape);
        expect(difference(a, b, by)).toEqual({ now: [], before: [] });
      }),
    ));
  it('law: is the same both ways, between nought and one, and one only where nothing differs', () =>
    fc.assert(
      fc.property(keys, keys, (one, other) => {
        const [a, b] = measures(quarters(one), quarters(other)) as [MeasureContent, MeasureContent];
        expect(likeness(a, b)).toBeCloseTo(likeness(b, a));
        expect(likeness(a, b)).toBeGreaterThanOrEqual(0);
        const { now, before } = difference(a, b);
        expect(now).toHaveLength(before.length);
        expect(likeness(a, b)).toBeCloseTo((4 - now.length) / 4);
      }),
    ));
});
