import { z } from 'zod';
import type { Note } from '../../score/score';
import { defineKind } from '../kind';
import { byPiece } from '../private/notes';

/** How far a note is moved: an octave or two, up or down. */
const OCTAVES = [-2, -1, 1, 2] as const;

const moved = (by: 1 | -1) => (current: (typeof OCTAVES)[number] | undefined) =>
  OCTAVES.find((octaves) => octaves === (current ?? 0) + by) ?? (current === -by ? undefined : current);

/** The octave of a note, against the one that the arranger chose. */
export const octave = defineKind({
  id: 'octave',
  name: 'Octave',
  stands: { note: 'button' },
  words: 'octaves higher lower register',
  value: z.literal(OCTAVES),
  scopes: ['note'],
  says: (value) => `${Math.abs(value) === 1 ? 'an octave' : 'two octaves'} ${value > 0 ? 'higher' : 'lower'}`,
  keys: [
    { press: 'o', does: 'an octave higher', next: moved(1) },
    { press: 'Shift+o', does: 'an octave lower', next: moved(-1) },
  ],
  apply(notes, held, { tied }) {
    const octaves = byPiece(held, tied);
    return notes.map((note): Note => {
      const by = octaves.get(note.id);
      return by ? { ...note, pitch: { ...note.pitch, octave: note.pitch.octave + by } } : note;
    });
  },
});
