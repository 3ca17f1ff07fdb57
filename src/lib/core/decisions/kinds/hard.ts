import { z } from 'zod';
import { defineKind } from '../kind';

/** A measure that the teacher knows to be hard, whatever the figures say. */
export const hard = defineKind({
  id: 'hard',
  name: 'Hard',
  words: 'difficult practice mark spot',
  value: z.literal(true),
  scopes: ['measure', 'range'],
  says: () => 'marked as a hard spot',
  choices: () => [[true, 'marked as a hard spot'] as const],
  keys: [
    {
      press: 'm',
      does: 'mark the measure as a hard spot, or unmark it',
      next: (current) => (current ? undefined : true),
    },
  ],
});
