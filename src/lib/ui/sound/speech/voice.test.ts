import { describe, expect, it } from 'vitest';
import { SCHOOLS } from '$core/counting/schools';
import { phonemesOf, spoken } from './voice';

const RATE = 22_050;

/** How strongly a frequency sounds. */
function strength(samples: Float32Array, frequency: number): number {
  const omega = (2 * Math.PI * frequency) / RATE;
  let [re, im] = [0, 0];
  samples.forEach((v, i) => {
    re += v * Math.cos(omega * i);
    im += v * Math.sin(omega * i);
  });
  return Math.hypot(re, im) / samples.length;
}
/** In a band, whatever the partials of the voice are. */
const band = (samples: Float32Array, from: number, to: number): number => {
  let sum = 0;
  for (let f = from; f <= to; f += 12) sum += strength(samples, f) ** 2;
  return sum;
};

describe('the counting voice', () => {
  it('has sounds for every word of every school, and for words of one’s own', () => {
    for (const school of Object.values(SCHOOLS))
      for (const word of [
        ...Object.values(school.simple),
        ...Object.values(school.triplet),
        ...Object.values(school.compound),
        '12',
      ])
        expect(phonemesOf(word!).length, word).toBeGreaterThan(0);
    expect(phonemesOf('slow')).toEqual(['s', 'l', 'ow']);
    expect(phonemesOf('3')).toEqual(['th', 'r', 'iy']);
  });
  it('speaks within the room that it has, neither too loud nor silent, the same each time', () => {
    const easy = spoken('3', RATE);
    expect(easy.length / RATE).toBeGreaterThan(0.2);
    expect(spoken('3', RATE, 0.15).length / RATE).toBeLessThan(0.16);
    expect(Math.max(...easy.map(Math.abs))).toBeCloseTo(0.8, 1);
    expect(Math.abs(easy[0]!)).toBe(0);
    expect(spoken('3', RATE)).toEqual(easy);
  });
  it('tells vowels apart: “ee” is bright where “oo” is dark', () => {
    const [three, two] = [spoken('e', RATE), spoken('ou', RATE)];
    const bright = (s: Float32Array): number => band(s, 2000, 2600) / band(s, 600, 1100);
    expect(bright(three)).toBeGreaterThan(4 * bright(two));
  });
  it('hisses in “s”, and not in “m”', () => {
    const high = (s: Float32Array): number =>
      band(s.subarray(0, 1500), 5000, 7000) / band(s.subarray(0, 1500), 100, 1000);
    expect(high(spoken('sa', RATE))).toBeGreaterThan(10 * high(spoken('ma', RATE)));
  });
});
