import { z } from 'zod';
import { defineKind } from '../kind';

/** A measure that the teacher knows to be hard, whatever the figures say. */
export const hard = defineKind({
  id: 'hard',
  name: 'Hard',
  value: z.literal(true),
  scopes: ['measure', 'range'],
  says: () => 'marked as hard',
  choices: () => [[true, 'marked as hard'] as const],
  keys: [
    {
      press: 'm',
      does: 'mark the measure as hard, or no longer',
      next: (current) => (current ? undefined : true),
    },
  ],
});
