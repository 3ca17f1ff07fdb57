/** Music for measuring: as many measures as are asked for, as a pianist of some years plays. */
import type { Score } from '../src/lib/core/score/score';
import { scoreFrom } from '../src/lib/core/test/shorthand';

export const times = (measures: number, patterns: readonly string[]): string =>
  Array.from({ length: measures }, (_, i) => patterns[i % patterns.length]).join(' | ');

/** Some twelve notes in a measure, chords of up to five among them. */
const RIGHT = [
  'Eb5:0.5 F5:0.5 G5:0.5 Ab5:0.5 Bb5:1 G5:1',
  '[G4 Bb4 C5 Eb5 G5]:2 F5:0.5 Eb5:0.5 D5:0.5 C5:0.5',
  'Bb4:0.5 D5:0.5 F5:0.5 A5:0.5 Bb5:1 [F5 Ab5]:1',
  '[D5 F5]:1 Eb5:0.5 D5:0.5 [G4 C5]:2',
  'C5:0.25 D5:0.25 Eb5:0.25 F5:0.25 G5:0.5 F5:0.5 Eb5:0.5 D5:0.5 C5:0.5 Bb4:0.5',
  '[Ab4 C5 Eb5]:1 G5:0.5 F5:0.5 [G4 Bb4 Eb5]:1 D5:0.5 C5:0.5',
  'F5:0.25 G5:0.25 Ab5:0.25 A5:0.25 Bb5:0.5 F5:0.5 [D5 F5 Bb5]:1 [D5 Ab5]:1',
  'G5:0.5 F5:0.5 [Bb4 Eb5]:2 r:1',
];
const LEFT = [
  'Eb3:0.5 Bb3:0.5 G3:0.5 Bb3:0.5 Eb3:1 [Bb2 Bb3]:1',
  'C3:1 [G3 C4 Eb4]:1 G2:1 [F3 G3 B3 D4]:1',
  'Bb2:0.5 F3:0.5 D4:0.5 F3:0.5 Bb2:0.5 F3:0.5 D4:0.5 F3:0.5',
  '[Ab2 Eb3]:2 [Bb2 F3 Ab3]:2',
];

const fullWith = (measures: number, pick: (of: readonly string[], measures: number) => string): Score =>
  scoreFrom({
    key: 'Eb',
    time: { beats: 4, beatType: 4 },
    tempo: 92,
    right: pick(RIGHT, measures),
    left: pick(LEFT, measures),
  });

/** Full measures of piano music whose phrases come again after eight measures. */
export const fullOf = (measures: number): Score => fullWith(measures, (of, n) => times(n, of));

/** The same measures in an order in which hardly a phrase comes again. */
export function throughComposed(measures: number): Score {
  let seed = 11;
  const random = (below: number): number => {
    seed = (seed * 1_103_515_245 + 12_345) % 2_147_483_648;
    return Math.floor(seed / 1024) % below;
  };
  return fullWith(measures, (of, n) => Array.from({ length: n }, () => of[random(of.length)]!).join(' | '));
}
