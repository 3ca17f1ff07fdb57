import { describe, expect, it } from 'vitest';
import { scoreFrom } from '../../test/shorthand';
import { TICKS_PER_QUARTER as Q } from '../../score/ticks';
import { tempoLine } from './tempoLine';

/** So many measures of 4/4. */
const frame = (measures: number) => {
  const { measures: made } = scoreFrom({
    key: 'C',
    time: { beats: 4, beatType: 4 },
    right: Array.from({ length: measures }, () => 'C4:4').join(' | '),
  });
  return { measures: made, shift: 0, end: 4 * measures * Q };
};
const marks = (tempos: readonly (readonly [number, number])[]) =>
  tempos.map(([at, tempo]) => ({ onset: Math.round(at * Q), tempo }));
/** What stands on the page: the numbers and the words, in quarters. */
const printed = (line: ReturnType<typeof tempoLine>) => [
  line.tempo,
  ...line.tempoChanges.filter((t) => !t.isHeard).map((t) => [t.onset / Q, t.tempo]),
  ...line.words.map((w) => [w.onset / Q, w.text]),
];
/** A hand that is never quite in time: a step at every beat, repeatable. */
const wavering = (i: number): number => 1 + 0.04 * Math.sin(i * 2.4) + 0.03 * Math.sin(i * 0.9);

describe('a line of tempos', () => {
  it('of a few changes stays', () => {
    const line = tempoLine(
      marks([
        [0, 96],
        [16, 72],
        [32, 96],
      ]),
      frame(16),
    );
    expect(printed(line)).toEqual([96, [16, 72], [32, 96]]);
  });
  it('that steps down quickly, and comes back, is a ritardando and its end', () => {
    const line = tempoLine(
      marks([
        [0, 100],
        [28, 92],
        [29, 84],
        [30, 74],
        [31, 62],
        [32, 100],
      ]),
      frame(24),
    );
    expect(printed(line)).toEqual([100, [28, 'rit.'], [32, 'a tempo']]);
    expect(line.tempoChanges.map((t) => t.tempo)).toEqual([92, 84, 74, 62, 100]);
  });
  it('that steps down to a tempo that lasts has its number', () => {
    const line = tempoLine(
      marks([
        [0, 120],
        [28, 110],
        [29, 100],
        [30, 90],
        [31, 80],
      ]),
      frame(24),
    );
    expect(printed(line)).toEqual([120, [31, 80], [28, 'rit.']]);
  });
  it('of hundreds of changes is one tempo, where it only wavers', () => {
    const line = tempoLine(marks(Array.from({ length: 240 }, (_, i) => [i, 88 * wavering(i)])), frame(60));
    expect(printed(line)).toHaveLength(1);
    expect(Math.abs(line.tempo - 88)).toBeLessThan(4);
    // It still sounds as it was played.
    expect(line.tempoChanges.length).toBeGreaterThan(100);
  });
  it('of hundreds of changes has the tempos that last, and the ritardandi', () => {
    const slow = (i: number): number => (i >= 120 && i < 200 ? 60 : 96);
    const held = (i: number): number => (i >= 76 && i < 80 ? [0.85, 0.75, 0.65, 0.55][i - 76]! : 1);
    const line = tempoLine(
      marks(Array.from({ length: 240 }, (_, i) => [i, slow(i) * wavering(i) * held(i)])),
      frame(60),
    );
    const [first, ...changes] = printed(line) as [number, ...[number, number | string][]];
    expect(Math.abs(first - 96)).toBeLessThan(5);
    const numbers = changes.filter(([, what]) => typeof what === 'number') as [number, number][];
    expect(numbers).toHaveLength(2);
    expect(Math.abs(numbers[0]![0] - 120)).toBeLessThanOrEqual(4);
    expect(Math.abs(numbers[0]![1] - 60)).toBeLessThan(4);
    expect(Math.abs(numbers[1]![0] - 200)).toBeLessThanOrEqual(4);
    const words = changes.filter(([, what]) => typeof what === 'string');
    expect(words.map(([, what]) => what)).toEqual(['rit.', 'a tempo']);
    expect(words[0]![0]).toBeGreaterThanOrEqual(74);
    expect(words[1]![0]).toBe(80);
  });
  it('without any says nothing', () => expect(printed(tempoLine([], frame(4)))).toEqual([0]));
});
