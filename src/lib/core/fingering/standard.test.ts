/** Standard material comes out as method books have it: alone, and inside a longer line. */
import { describe, expect, it } from 'vitest';
import {
  STANDARD_ARPEGGIOS,
  STANDARD_CHORDS,
  STANDARD_CHROMATIC,
  STANDARD_FIGURES,
  STANDARD_FIVE_FINGERS,
  standardFound as found,
  STANDARD_SCALES,
  type StandardFingering,
} from '../test/standardFingerings';
import { keysLine } from '../test/keysLine';
import { fingerLine } from './solve';

describe.each([
  ['scales', STANDARD_SCALES],
  ['arpeggios', STANDARD_ARPEGGIOS],
  ['five-finger patterns', STANDARD_FIVE_FINGERS],
  ['chords', STANDARD_CHORDS],
  ['the chromatic scale', STANDARD_CHROMATIC],
  ['figures', STANDARD_FIGURES],
])('%s', (_name, cases) => {
  it.each(cases.map((c) => [`${c.name}, ${c.hand} hand`, c] as const))('%s', (_title, standard) => {
    expect(standard.fingers).toContain(found(standard));
  });
});

describe('inside a melody', () => {
  /** An octave of a standard scale between other notes: inside it the fingers are the usual ones. */
  const inside = ({ keys, hand, fingers }: StandardFingering, direction: 'up' | 'down'): [string, string] => {
    const whole = keys as readonly number[];
    const [from, to] = direction === 'up' ? [7, 15] : [14, 22];
    const run = whole.slice(from, to);
    const turn = direction === 'up' ? -1 : 1;
    const around = [
      run[0]! - 7 * turn,
      run[0]! - 4 * turn,
      ...run,
      run.at(-1)! + 4 * turn,
      run.at(-1)! + 7 * turn,
    ];
    const { notes, settings } = keysLine(around, hand, { reach: 12 });
    const { fingers: got } = fingerLine(notes, settings);
    const digits = notes.map((n) => got.get(n.id)).join('');
    const [got6, wanted] = [digits.slice(3, 9), fingers[0]!.slice(from + 1, to - 1)];
    // How the hand comes to the first thumb and goes on from the last depends on what stands around.
    const between = [wanted.indexOf('1'), wanted.lastIndexOf('1') + 1] as const;
    return [got6.slice(...between), wanted.slice(...between)];
  };
  it.each(STANDARD_SCALES.map((c) => [`${c.name}, ${c.hand} hand`, c] as const))('%s', (_title, standard) => {
    for (const direction of ['up', 'down'] as const) {
      const [got, wanted] = inside(standard, direction);
      expect(got, direction).toBe(wanted);
    }
  });
});
