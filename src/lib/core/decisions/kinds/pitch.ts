import { z } from 'zod';
import { measureAt } from '../../score/query';
import type { Note } from '../../score/score';
import { defineKind } from '../kind';
import { byPiece, stepsAway } from '../private/notes';

type PitchChange = { readonly steps: number; readonly alter: number };

const MOST_STEPS = 7;
const within = (value: number, most: number): number => Math.max(-most, Math.min(most, value));

const changed =
  (by: Partial<PitchChange>) =>
  (current: PitchChange | undefined): PitchChange | undefined => {
    const steps = within((current?.steps ?? 0) + (by.steps ?? 0), MOST_STEPS);
    const alter = within((current?.alter ?? 0) + (by.alter ?? 0), 2);
    return steps === 0 && alter === 0 ? undefined : { steps, alter };
  };

const SEMITONES: Readonly<Record<number, string>> = {
  [-2]: 'a whole step lower',
  [-1]: 'a half step lower',
  1: 'a half step higher',
  2: 'a whole step higher',
};

/** Another key for a note: so many steps of the scale away, and semitones beside the scale. It is the same change in every key. */
export const pitch = defineKind({
  id: 'pitch',
  name: 'Pitch',
  words: 'note wrong sharp flat higher lower melody',
  value: z.strictObject({
    steps: z.number().int().min(-MOST_STEPS).max(MOST_STEPS),
    alter: z.number().int().min(-2).max(2),
  }),
  scopes: ['note'],
  says({ steps, alter }) {
    const size = Math.abs(steps) === 1 ? 'a step' : `${Math.abs(steps)} steps`;
    return [steps && `${size} ${steps > 0 ? 'higher' : 'lower'}`, SEMITONES[alter]]
      .filter(Boolean)
      .join(', ');
  },
  keys: [
    { press: 'Alt+ArrowUp', does: 'a step of the scale higher', next: changed({ steps: 1 }) },
    { press: 'Alt+ArrowDown', does: 'a step of the scale lower', next: changed({ steps: -1 }) },
    { press: '#', does: 'a half step higher', next: changed({ alter: 1 }) },
    { press: 'b', does: 'a half step lower', next: changed({ alter: -1 }) },
  ],
  apply(notes, held, { measures, tied }) {
    const changes = byPiece(held, tied);
    return notes.map((note): Note => {
      const change = changes.get(note.id);
      if (!change) return note;
      const { steps, alter } = change;
      const { reminder: _reminder, respelled: _respelled, ...rest } = note;
      const moved =
        steps === 0
          ? note.pitch
          : stepsAway(note.pitch, steps, measureAt(measures, note.onset), note.onset, null);
      return { ...rest, pitch: { ...moved, alter: within(moved.alter + alter, 2) } };
    });
  },
});
