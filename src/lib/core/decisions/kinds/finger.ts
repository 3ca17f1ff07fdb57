import { z } from 'zod';
import { defineKind } from '../kind';

const FINGERS = [1, 2, 3, 4, 5] as const;

/** The finger that strikes a note: a hard constraint of the solver. */
export const finger = defineKind({
  id: 'finger',
  name: 'Finger',
  isOfOneNote: true,
  words: 'fingering fingers thumb',
  value: z.literal(FINGERS),
  scopes: ['note'],
  says: (value) => `finger ${value}`,
  keys: FINGERS.map((value) => ({
    press: String(value),
    does: `finger ${value}`,
    next: () => value,
  })),
});
