import { describe, expect, it } from 'vitest';
import { scoreFrom } from '../test/shorthand';
import { DEFAULT_RECIPE } from '../version/recipe';
import { rankKeys } from './rank';

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
  it('counts what lies outside the voice, more the further it lies', () => {
    const of = (key: string, range: ReturnType<typeof voice>): number =>
      rankKeys(song, DEFAULT_RECIPE, range).find((k) => k.key === key)!.voice;
    expect(of('C', voice('C', 3, 'C', 6))).toBe(0);
    expect(of('C', voice('G', 5, 'C', 6))).toBeGreaterThan(of('C', voice('C', 4, 'G', 4)));
  });
  it('moves the nearest way', () => {
    for (const { by } of ranked) expect(Math.abs(by)).toBeLessThanOrEqual(6);
  });
});
