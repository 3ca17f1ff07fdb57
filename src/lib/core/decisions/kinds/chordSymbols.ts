import { z } from 'zod';
import { parseChord } from '../../theory/chordName';
import { chordSymbol, type Chord } from '../../theory/chord';
import { transposeChord } from '../../transpose/transpose';
import { defineKind } from '../kind';

/** A beat that keeps the chord before it. */
const STAYS = '.';

/** One sign a place: a chord, null for "no chord", or undefined where the one before stays. Undefined for what is no row of chords. */
export function readChordRow(text: string): (Chord | null | undefined)[] | undefined {
  const row = text
    .trim()
    .split(/[\s|]+/)
    .map((token) => (token === STAYS || token === '/' ? { stays: true } : { chord: parseChord(token) }));
  if (text.trim() === '' || row.some((sign) => !('stays' in sign) && sign.chord === undefined))
    return undefined;
  return row.map((sign) => ('stays' in sign ? undefined : sign.chord));
}

const moved = (text: string, fifths: number): string =>
  (readChordRow(text) ?? [])
    .map((chord) =>
      chord === undefined ? STAYS : chord === null ? 'N.C.' : chordSymbol(transposeChord(chord, fifths)),
    )
    .join(' ');

/** The chords of a measure, spread evenly over it, in the key of the source: "C G7", or beat by beat "C . G7 .". */
export const chordSymbols = defineKind({
  id: 'chords',
  name: 'Chords',
  value: z
    .string()
    .trim()
    .min(1)
    .max(120)
    .refine((text) => readChordRow(text) !== undefined, 'names no chords; write them as C Am7 or C . G7 .'),
  scopes: ['measure'],
  stage: 'source',
  says: (value) => `chords ${value}`,
  written: {
    hint: 'C Am7, or C . G7 .',
    read: (text, { transposition }) =>
      readChordRow(text) ? moved(text, -(transposition?.fifths ?? 0)) : undefined,
    show: (value, { transposition }) => moved(value, transposition?.fifths ?? 0),
  },
});
