import { describe, expect, it } from 'vitest';
import { readFileSync } from 'node:fs';
import type { Violation } from './check';
import { limitsText, violationText } from './limits';

const broken = (
  limit: string,
  found: string,
  allowed: string,
  hand: Violation['hand'] = 'left',
): Violation => ({
  measure: 0,
  hand,
  limit,
  found,
  allowed,
});

describe('what breaks a limit, in a measure', () => {
  it.each([
    [broken('leap in semitones', '16', '12'), 'Left hand: leap of a tenth (level 3 allows an octave)'],
    [
      broken('span in semitones', '14', '12', 'right'),
      'Right hand: stretch of a ninth (this hand at level 3: an octave)',
    ],
    [broken('notes at once', '4', '2'), 'Left hand: 4 notes at once (level 3 allows 2)'],
    [broken('shortest note', '1/16', '1/8', 'right'), 'Right hand: sixteenths (level 3 allows eighths)'],
    [
      broken('dotted notes', 'dotted 1/8', '1/2, 1/4'),
      'Left hand: dotted eighth (level 3 allows dotted half notes and quarters)',
    ],
    [broken('tuplets', '5 in 4', 'none'), 'Left hand: 5 in 4 (level 3 allows no tuplets)'],
    [broken('hands overlap', 'x', 'y', 'both'), 'The left hand is at or above the right'],
    [
      broken('range of the keyboard', 'MIDI 103', '36 to 96', 'right'),
      'Right hand: a note beyond the keyboard',
    ],
    [broken('pedal', 'pedal', 'none', 'both'), 'Pedal (level 3 has none)'],
  ])('%o', (violation, text) => {
    expect(violationText(violation, 3)).toBe(text);
  });
});

describe('limits that are broken, in all', () => {
  it('are one clause each, whose noun and verb agree', () => {
    const leap = { limit: 'leap in semitones' };
    expect(limitsText([{ ...leap, measure: 1 }], 2)).toEqual([
      '1 measure has a leap wider than level 2 allows',
    ]);
    expect(
      limitsText(
        [
          { ...leap, measure: 1 },
          { ...leap, measure: 1 },
          { ...leap, measure: 4 },
          { limit: 'pedal', measure: 0 },
        ],
        2.5,
      ),
    ).toEqual([
      '2 measures have a leap wider than level 2½ allows',
      '1 measure has pedal, which level 2½ doesn’t',
    ]);
  });
  it('have words for every limit that is checked', () => {
    const source = readFileSync('src/lib/core/version/check.ts', 'utf8');
    const ids = [...source.matchAll(/limit(?:: | = )'([^']+)'|add\('([^']+)'/g)].map((m) => m[1] ?? m[2]!);
    expect(ids.length).toBeGreaterThan(8);
    for (const limit of ids)
      expect(limitsText([{ limit, measure: 0 }], 1)[0], limit).not.toContain('over the limit of');
  });
});
