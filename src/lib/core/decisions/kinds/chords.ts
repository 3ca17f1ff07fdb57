import { z } from 'zod';
import { chordRowText, readChordRow } from '../../score/chordRow';
import { transposeChord } from '../../transpose/transpose';
import { defineKind } from '../kind';

const moved = (text: string, fifths: number): string =>
  chordRowText((readChordRow(text) ?? []).map((chord) => chord && transposeChord(chord, fifths)));

/** The chords of a measure, spread evenly over it, in the key of the source: "C G7", or beat by beat "C . G7 .". */
export const chords = defineKind({
  id: 'chords',
  name: 'Chords',
  words: 'harmony chord reharmonise symbol',
  value: z
    .string()
    .trim()
    .min(1)
    .max(120)
    .refine((text) => readChordRow(text) !== undefined, 'isn’t a chord. Write chords like C Am7 or C . G7 .'),
  scopes: ['measure'],
  says: (value) => `chords ${value}`,
  written: {
    hint: 'C Am7, or C . G7 .',
    read: (text, { transposition }) =>
      readChordRow(text) ? moved(text, -(transposition?.fifths ?? 0)) : undefined,
    show: (value, { transposition }) => moved(value, transposition?.fifths ?? 0),
  },
});
