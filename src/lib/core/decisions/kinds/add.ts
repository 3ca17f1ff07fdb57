import { z } from 'zod';
import type { Note } from '../../score/score';
import { measureAt } from '../../score/query';
import { defineKind } from '../kind';
import { byPiece, stepsAway } from '../private/notes';

const INTERVALS: Readonly<Record<number, string>> = {
  [-7]: 'an octave below',
  [-5]: 'a sixth below',
  [-4]: 'a fifth below',
  [-2]: 'a third below',
  2: 'a third above',
  4: 'a fifth above',
  5: 'a sixth above',
  7: 'an octave above',
};
const nameOf = (steps: number): string =>
  INTERVALS[steps] ?? `${Math.abs(steps)} steps ${steps > 0 ? 'above' : 'below'}`;

/** Other keys struck together with a note, by steps of the scale: −7 an octave below, 2 a third above. */
export const add = defineKind({
  id: 'add',
  name: 'Add chord notes',
  words: 'fuller chord richer double octave octaves',
  value: z
    .array(
      z
        .number()
        .int()
        .min(-14)
        .max(14)
        .refine((steps) => steps !== 0),
    )
    .min(1)
    .max(4)
    .refine((list) => new Set(list).size === list.length),
  scopes: ['note'],
  says: (value) => `with ${value.map(nameOf).join(' and ')}`,
  choices: () =>
    Object.keys(INTERVALS).map((steps) => [[Number(steps)], INTERVALS[Number(steps)]!] as [number[], string]),
  apply(notes, held, { measures, tied, chordAt }) {
    const intervals = byPiece(held, tied);
    return notes.flatMap((note): Note[] => {
      const { lyrics: _lyrics, slurs: _slurs, ...bare } = note;
      const added = (intervals.get(note.id) ?? []).map((steps): Note => ({
        ...bare,
        id: note.id.replace(/(\.\d+)?$/, (piece) => `p${steps}${piece}`),
        pitch: stepsAway(note.pitch, steps, measureAt(measures, note.onset), note.onset, chordAt(note.onset)),
      }));
      return [note, ...added];
    });
  },
});
