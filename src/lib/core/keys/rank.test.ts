import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readScoreFile } from '../io/readScoreFile';
import type { Score } from '../score/score';
import { scoreFrom } from '../test/shorthand';
import { DEFAULT_RECIPE } from '../version/recipe';
import { keySentence, rankKeys, weighed } from './rank';

const song = scoreFrom({
  key: 'E',
  time: { beats: 4, beatType: 4 },
  right: 'E4:1 F#4:1 G#4:1 B4:1 | C#5:2 B4:2 | A4:1 G#4:1 F#4:1 B4:1 | E4:4',
  left: 'E3:4 | A2:4 | B2:4 | E3:4',
  chords: 'E | A | B7 | E',
});
const voice = (low: 'C' | 'G', lowOctave: number, high: 'C' | 'G', highOctave: number) => ({
  low: { step: low, alter: 0, octave: lowOctave },
  high: { step: high, alter: 0, octave: highOctave },
});

describe('ranking keys', () => {
  const ranked = rankKeys(song, DEFAULT_RECIPE);
  it('offers every key once, the source’s included, the best first', () => {
    expect(new Set(ranked.map((k) => k.key)).size).toBe(13);
    expect(ranked.find((k) => k.key === 'E')).toMatchObject({ by: 0, distance: 0 });
    expect(ranked.map((k) => k.total)).toEqual([...ranked.map((k) => k.total)].sort((a, b) => a - b));
  });
  it('prefers what is easy to read: C comes before the four sharps of the source', () => {
    const place = (key: string): number => ranked.findIndex((k) => k.key === key);
    expect(place('C')).toBeLessThan(place('E'));
    expect(ranked.find((k) => k.key === 'C')!.reading).toBe(0);
    expect(ranked.find((k) => k.key === 'F#')!.reading).toBe(6);
  });
  it('judges the voice by the melody, and of a chart by the range that is said, moved along with the key', () => {
    const chart = readScoreFile(
      'chart.txt',
      new TextEncoder().encode('C F\nSlow the river\nG C\nslow the day\n'),
    ).score;
    const [sung, high] = [voice('C', 4, 'C', 5), voice('G', 4, 'G', 5)];
    const of = (score: Score, songRange?: typeof high) => (key: string) =>
      rankKeys(score, DEFAULT_RECIPE, { voice: sung, songRange }).find((k) => k.key === key)!;
    expect(of(chart)('C')).toMatchObject({ voice: 0, voiceFrom: null });
    // An octave a fifth too high fits a fifth lower.
    expect(of(chart, high)('C')).toMatchObject({ voice: 1, voiceFrom: 'range' });
    expect(of(chart, high)('F')).toMatchObject({ voice: 0, voiceFrom: 'range' });
    // A melody says more than any range.
    expect(of(song, high)('E')).toMatchObject({ voice: of(song)('E').voice, voiceFrom: 'melody' });
    expect(rankKeys(song, DEFAULT_RECIPE)[0]!.voiceFrom).toBeNull();
  });
  it('counts what lies outside the voice, more the further it lies', () => {
    const of = (key: string, range: ReturnType<typeof voice>): number =>
      rankKeys(song, DEFAULT_RECIPE, { voice: range }).find((k) => k.key === key)!.voice;
    expect(of('C', voice('C', 3, 'C', 6))).toBe(0);
    expect(of('C', voice('G', 5, 'C', 6))).toBeGreaterThan(of('C', voice('C', 4, 'G', 4)));
    // The same range an octave lower is as good: a man sings what is written for everybody as it stands.
    for (const key of ['C', 'G', 'F'])
      expect(of(key, voice('C', 3, 'G', 3))).toBe(of(key, voice('C', 4, 'G', 4)));
  });
  it('law: other weights order the same figures anew, as ranking with them would', () => {
    const weight = fc.integer({ min: 0, max: 30 });
    fc.assert(
      fc.property(
        fc.record({ reading: weight, hands: weight, voice: weight, keyboard: weight, distance: weight }),
        (weights) => {
          const again = weighed(ranked, weights);
          expect(again).toEqual(rankKeys(song, DEFAULT_RECIPE, { weights }));
          expect(again.map((k) => k.total)).toEqual([...again.map((k) => k.total)].sort((a, b) => a - b));
        },
      ),
      { numRuns: 12 },
    );
    const near = { reading: 0, hands: 0, voice: 0, keyboard: 0, distance: 9 };
    expect(weighed(ranked, near)[0]!.key).toBe('E');
  });
  it('puts a key beyond the level behind, and says why the best are best', () => {
    const first = rankKeys(song, { ...DEFAULT_RECIPE, level: 1 });
    expect(['C', 'G', 'F']).toContain(first[0]!.key);
    const sentence = keySentence(
      first.find((k) => k.key === 'G')!,
      'major',
      first,
    );
    expect(sentence).toMatch(/^G major, a minor third up: 1 sharp, (among the easiest|fairly)/);
  });
  it('moves the nearest way', () => {
    for (const { by } of ranked) expect(Math.abs(by)).toBeLessThanOrEqual(6);
  });
});
