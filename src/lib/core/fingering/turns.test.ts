/** Where the hand turns or goes elsewhere: from scale to scale, about the thumb, over more keys than it has fingers. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { keysLine } from '../test/keysLine';
import { SCALE_STEPS } from './scaleFingers';
import { fingerLine } from './solve';
import { eventsOf, type Hand } from './events';
import { gripsFor } from './grips';

type Keys = readonly (number | readonly number[])[];

const fingered = (keys: Keys, hand: Hand, each?: number): string => {
  const { notes, settings } = keysLine(keys, hand, {}, each);
  const { fingers } = fingerLine(notes, settings);
  return notes.map((n) => fingers.get(n.id)).join('');
};

const octaveOf = (kind: 'major' | 'harmonic minor', tonic: number, down: boolean): number[] => {
  const keys = [...SCALE_STEPS[kind].map((step) => tonic + step), tonic + 12];
  return down ? keys.reverse() : keys;
};

describe('a scale that another scale follows', () => {
  const scaleAt = fc.record({
    kind: fc.constantFrom('major', 'harmonic minor'),
    tonic: fc.integer({ min: 0, max: 11 }),
    down: fc.boolean(),
  });
  it('law: keeps to its last note the fingers that it has alone', () => {
    fc.assert(
      fc.property(scaleAt, scaleAt, fc.constantFrom<Hand>('right', 'left'), (one, other, hand) => {
        const base = hand === 'right' ? 60 : 36;
        const [first, next] = [one, other].map(({ kind, tonic, down }) =>
          octaveOf(kind as 'major' | 'harmonic minor', base + tonic, down),
        ) as [number[], number[]];
        // Where the line goes on by step the same way, or from the same key, it is one longer run.
        const on = (next[0]! - first.at(-1)!) * (one.down ? -1 : 1);
        fc.pre(on !== 0 && (on > 3 || on < 0 || one.down !== other.down));
        expect(fingered([...first, ...next], hand).slice(0, 8)).toBe(fingered(first, hand));
      }),
      { numRuns: 200 },
    );
  });
});

describe('a hand that turns about its thumb', () => {
  it.each<[string, Hand, Keys, string]>([
    [
      'over an octave with its fifth and the tenth',
      'left',
      [36, 43, 48, 52, 48, 43, 36, 43, 48, 52, 48, 43],
      '521212521212',
    ],
    ['in another harmony after it', 'left', [38, 45, 50, 53, 50, 45, 43, 50, 55, 59, 55, 50], '521212521212'],
    ['inside an octave', 'left', [36, 43, 48, 43, 36, 43, 48, 43], '52125212'],
    ['from the octave back to the fifth', 'left', [36, 48, 43, 48, 36, 48, 43, 48], '51215121'],
    [
      'not where four keys lie within a ninth',
      'left',
      [36, 40, 43, 48, 43, 40, 36, 40, 43, 48, 43, 40],
      '532123532123',
    ],
  ])('%s', (_says, hand, keys, fingers) => {
    expect(fingered(keys, hand)).toBe(fingers);
  });
});

describe('quick notes', () => {
  const brokenThenBass: Keys = [48, 55, 64, 48, 41, 48, 57, 41, 48, 55, 64, 48, 41, 48, 57, 41];
  it('no finger leaps a tenth, though its chord would give it that key', () => {
    const fingers = fingered(brokenThenBass, 'left', 2520);
    const keys = brokenThenBass as readonly number[];
    keys.forEach((key, i) => {
      if (i > 0 && Math.abs(key - keys[i - 1]!) >= 15)
        expect(fingers[i], `note ${i}`).not.toBe(fingers[i - 1]);
    });
  });
});

describe('more keys than fingers', () => {
  const gripOf = (keys: readonly number[], hand: Hand): string => {
    const { notes, settings } = keysLine([keys], hand, { reach: 12 });
    const [grip] = gripsFor(eventsOf(notes, settings)[0]!, new Map());
    return grip!.join('');
  };
  it('over two octaves the hand rolls them in positions', () => {
    expect(gripOf([36, 43, 48, 52, 55, 60], 'left')).toBe('124125');
    expect(gripOf([60, 64, 67, 72, 76, 79, 84], 'right')).toMatch(/^1.*5$/);
  });
  it('keys beside each other can lie under one finger', () => {
    expect(fingered([[60, 62, 64, 67, 71, 74]], 'right')).toBe('112345');
  });
  it('law: no finger strikes two keys far apart within one position', () => {
    const chord = fc.uniqueArray(fc.integer({ min: 36, max: 76 }), { minLength: 2, maxLength: 8 });
    fc.assert(
      fc.property(chord, fc.constantFrom<Hand>('right', 'left'), (unsorted, hand) => {
        const keys = [...unsorted].sort((a, b) => a - b);
        const fingers = fingered([keys], hand);
        for (let i = 1; i < keys.length; i++)
          if (fingers[i] === fingers[i - 1]) expect(keys[i]! - keys[i - 1]!).toBeLessThanOrEqual(2);
        if (keys.length <= 5) expect(new Set(fingers).size).toBe(keys.length);
      }),
    );
  });
});
