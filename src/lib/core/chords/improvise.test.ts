import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { LEVELS } from '../arrange/levels';
import { measureLength } from '../score/metre';
import { pitchClassName } from '../theory/pitch';
import { chordTones, type Chord } from '../theory/chord';
import { fromFifths, pitchClass } from '../theory/fifths';
import { parseKey, type Key } from '../theory/key';
import { fiveTones, rhythmsFor, threeTones } from './improvise';

const key = (code: string): Key => parseKey(code)!;
const names = (tones: readonly number[]): string => tones.map((t) => pitchClassName(fromFifths(t))).join(' ');
const chord = (root: number, kind: Chord['kind']): Chord => ({ root, kind });

describe('tones to improvise with', () => {
  it('are the five of the key that do not rub', () => {
    expect(names(fiveTones(key('G')))).toBe('G A B D E');
    expect(names(fiveTones(key('Am')))).toBe('A C D E G');
    expect(names(fiveTones(key('Eb')))).toBe('E♭ F G B♭ C');
  });
  it('never have two a half step apart', () => {
    for (const code of ['C', 'F#', 'Db', 'Bm', 'Ebm', 'Gm']) {
      const classes = fiveTones(key(code)).map(pitchClass);
      for (const a of classes) for (const b of classes) expect((a - b + 12) % 12).not.toBe(1);
    }
  });
  it('are three for each chord, with its root and fifth', () => {
    expect(names(threeTones(chord(1, 'major'), key('G')))).toBe('G A D');
    expect(names(threeTones(chord(4, 'minor'), key('G')))).toBe('E G B');
    // C is none of the five of G: its own third stands in.
    expect(names(threeTones(chord(0, 'major'), key('G')))).toBe('C E G');
  });
  it('hold the root of any chord in any key, and nothing twice', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: -5, max: 5 }),
        fc.constantFrom('major', 'minor', 'dominant7', 'diminished') as fc.Arbitrary<Chord['kind']>,
        fc.constantFrom('C', 'G', 'F', 'Bb', 'D', 'Am', 'Cm'),
        (root, kind, code) => {
          const three = threeTones(chord(root, kind), key(code));
          expect(three).toContain(root);
          expect(new Set(three.map(pitchClass)).size).toBe(three.length);
          expect(three.length).toBeLessThanOrEqual(3);
          expect(chordTones(chord(root, kind))).toContain(three[0]);
        },
      ),
    );
  });
});

describe('rhythms to try', () => {
  const metres = [
    { beats: 2, beatType: 4 },
    { beats: 3, beatType: 4 },
    { beats: 4, beatType: 4 },
    { beats: 2, beatType: 2 },
    { beats: 6, beatType: 8 },
    { beats: 9, beatType: 8 },
    { beats: 5, beatType: 4 },
  ];
  it.each(LEVELS.flatMap((l) => metres.map((time) => [l, time] as const)))(
    'fill a measure with what the level reads',
    (contract, time) => {
      const rhythms = rhythmsFor(contract, time);
      expect(rhythms.length).toBeGreaterThan(0);
      for (const rhythm of rhythms) expect(rhythm.reduce((a, b) => a + b, 0)).toBe(measureLength(time));
      expect(new Set(rhythms.map((r) => r.join())).size).toBe(rhythms.length);
    },
  );
  it('are halves and quarters at level 1, and move on to eighths', () => {
    const four = { beats: 4, beatType: 4 };
    const shortest = (level: number): number =>
      Math.min(
        ...rhythmsFor(
          LEVELS.find((l) => l.level === level)!,
          four,
        ).flat(),
      );
    expect(shortest(1)).toBeGreaterThanOrEqual(10080);
    expect(shortest(6)).toBeLessThan(10080);
  });
});
