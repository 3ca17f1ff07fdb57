import { describe, expect, it } from 'vitest';
import { SAMPLE_RATE } from './model';
import { Resampler } from './resample';

const sine = (hertz: number, rate: number, seconds: number): Float32Array =>
  Float32Array.from({ length: Math.round(rate * seconds) }, (_, i) =>
    Math.sin((2 * Math.PI * hertz * i) / rate),
  );
const power = (samples: Float32Array): number =>
  Math.sqrt(samples.reduce((sum, x) => sum + x * x, 0) / samples.length);

describe('the resampler', () => {
  it.each([44100, 48000, 16000, 22050])(
    'keeps a tone as it is, from %i samples a second, however it is cut',
    (rate) => {
      const whole = new Resampler(rate).add(sine(440, rate, 1));
      expect(whole.length).toBeGreaterThan(SAMPLE_RATE * 0.99);
      expect(power(whole)).toBeCloseTo(Math.SQRT1_2, 2);
      // Crossings of nought: twice 440.
      let crossings = 0;
      for (let i = 1; i < whole.length; i++) if (whole[i - 1]! < 0 !== whole[i]! < 0) crossings += 1;
      expect(Math.abs(crossings - 880)).toBeLessThan(6);
      const cut = new Resampler(rate);
      const parts: number[] = [];
      const all = sine(440, rate, 1);
      for (let i = 0; i < all.length; i += 1000) parts.push(...cut.add(all.subarray(i, i + 1000)));
      expect(parts.length).toBe(whole.length);
      expect(Math.max(...parts.map((x, i) => Math.abs(x - whole[i]!)))).toBeLessThan(1e-5);
    },
  );

  it('lets nothing through that the lower rate cannot hold', () => {
    expect(power(new Resampler(48000).add(sine(14000, 48000, 1)))).toBeLessThan(0.05);
  });
});
