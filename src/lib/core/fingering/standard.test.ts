/** Standard material comes out as method books have it: alone, and inside a longer line. */
import { describe, expect, it } from 'vitest';
import {
  STANDARD_ARPEGGIOS,
  STANDARD_CHORDS,
  STANDARD_CHROMATIC,
  STANDARD_FIGURES,
  STANDARD_FIVE_FINGERS,
  STANDARD_SCALES,
  type StandardFingering,
} from '../test/standardFingerings';
import { keysLine } from '../test/keysLine';
import { measureLength } from '../score/metre';
import type { Measure, TimeSignature } from '../score/score';
import { noteValue } from '../score/ticks';
import { fingerWithFigures } from './figures';
import { fingerLine } from './solve';

/** Measures that hold a line of eighths. */
function measuresFor(count: number, time: TimeSignature): Measure[] {
  const length = measureLength(time);
  const key = { fifths: 0, mode: 'major' } as const;
  return Array.from({ length: Math.ceil((count * noteValue(8)) / length) }, (_, index) => ({
    index,
    number: String(index + 1),
    start: index * length,
    length,
    time,
    key,
    beginsAt: 0,
  }));
}

const found = ({ keys, hand, time }: StandardFingering): string => {
  const { notes, settings } = keysLine(keys, hand);
  const { fingers } = time
    ? fingerWithFigures(notes, measuresFor(keys.length, time), settings).fingering
    : fingerLine(notes, settings);
  return notes.map((n) => fingers.get(n.id)).join('');
};

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
