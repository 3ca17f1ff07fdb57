/** Music for measuring: as many measures as are asked for, as a pianist of some years plays. */
import type { Score } from '../src/lib/core/score/score';
import { scoreFrom } from '../src/lib/core/test/shorthand';

export const times = (measures: number, patterns: readonly string[]): string =>
  Array.from({ length: measures }, (_, i) => patterns[i % patterns.length]).join(' | ');

/** Sixty-four measures with some eight hundred notes, chords of up to five among them. */
export const fullOf = (measures: number): Score =>
  scoreFrom({
    key: 'Eb',
    time: { beats: 4, beatType: 4 },
    tempo: 92,
    right: times(measures, [
      'Eb5:0.5 F5:0.5 G5:0.5 Ab5:0.5 Bb5:1 G5:1',
      '[G4 Bb4 C5 Eb5 G5]:2 F5:0.5 Eb5:0.5 D5:0.5 C5:0.5',
      'Bb4:0.5 D5:0.5 F5:0.5 A5:0.5 Bb5:1 [F5 Ab5]:1',
      '[D5 F5]:1 Eb5:0.5 D5:0.5 [G4 C5]:2',
      'C5:0.25 D5:0.25 Eb5:0.25 F5:0.25 G5:0.5 F5:0.5 Eb5:0.5 D5:0.5 C5:0.5 Bb4:0.5',
      '[Ab4 C5 Eb5]:1 G5:0.5 F5:0.5 [G4 Bb4 Eb5]:1 D5:0.5 C5:0.5',
      'F5:0.25 G5:0.25 Ab5:0.25 A5:0.25 Bb5:0.5 F5:0.5 [D5 F5 Bb5]:1 [D5 Ab5]:1',
      'G5:0.5 F5:0.5 [Bb4 Eb5]:2 r:1',
    ]),
    left: times(measures, [
      'Eb3:0.5 Bb3:0.5 G3:0.5 Bb3:0.5 Eb3:1 [Bb2 Bb3]:1',
      'C3:1 [G3 C4 Eb4]:1 G2:1 [F3 G3 B3 D4]:1',
      'Bb2:0.5 F3:0.5 D4:0.5 F3:0.5 Bb2:0.5 F3:0.5 D4:0.5 F3:0.5',
      '[Ab2 Eb3]:2 [Bb2 F3 Ab3]:2',
    ]),
  });
