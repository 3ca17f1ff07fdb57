import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { Concealer } from './conceal';

const RATE = 22050;
const sine = (seconds: number): Float32Array =>
  Float32Array.from(
    { length: Math.round(RATE * seconds) },
    (_, i) => 0.5 + 0.3 * Math.sin((2 * Math.PI * 220 * i) / RATE),
  );
/** With so many samples of silence from a place on. */
const dropped = (samples: Float32Array, from: number, count: number): Float32Array =>
  samples.slice().fill(0, from, from + count);
const largestStep = (samples: Float32Array): number =>
  samples.reduce((most, x, i) => Math.max(most, i === 0 ? 0 : Math.abs(x - samples[i - 1]!)), 0);

describe('gaps in the sound', () => {
  it('are filled: nothing is silent, and nothing leaps as a gap does', () => {
    const whole = sine(1);
    for (const count of [64, 600, 2000]) {
      const filled = new Concealer(RATE).add(dropped(whole, 9000, count));
      expect(filled.every((x) => Math.abs(x) > 0.1)).toBe(true);
      expect(largestStep(filled)).toBeLessThan(4 * largestStep(whole));
      // What was not dropped is as it was, but for the fading.
      expect(filled.subarray(0, 9000)).toEqual(whole.subarray(0, 9000));
      expect(filled.subarray(9000 + count + 120)).toEqual(whole.subarray(9000 + count + 120));
    }
  });
  it('law: sound comes out the same however it is cut, as long as no cut lies in a gap’s first millisecond', () => {
    fc.assert(
      fc.property(fc.integer({ min: 30, max: 3000 }), fc.integer({ min: 1, max: 20 }), (count, pieces) => {
        const samples = dropped(sine(0.5), 5000, count);
        const once = new Concealer(RATE).add(samples);
        const cut = new Concealer(RATE);
        const size = Math.ceil(samples.length / pieces);
        const parts = Array.from({ length: pieces }, (_, i) =>
          cut.add(samples.subarray(i * size, (i + 1) * size)),
        );
        expect(parts.flatMap((part) => [...part])).toEqual([...once]);
      }),
    );
  });
  it('that somebody made stay silent: what was never sound, and what lasts', () => {
    expect(new Concealer(RATE).add(new Float32Array(5000)).every((x) => x === 0)).toBe(true);
    const hushed = new Concealer(RATE).add(dropped(sine(2), 8000, 22050));
    expect(hushed.subarray(8000 + Math.round(0.15 * RATE), 8000 + 22050).every((x) => x === 0)).toBe(true);
  });
  it('a single silent sample is sound like any other', () => {
    const samples = sine(0.1);
    samples[500] = 0;
    expect(new Concealer(RATE).add(samples)).toEqual(samples);
  });
});
