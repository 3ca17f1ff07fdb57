import { z } from 'zod';
import { defineKind } from '../kind';

/** How the notes of a measure fall into groups: "2+2+3". A correction of the piece: see version/mend.ts. */
export const groups = defineKind({
  id: 'groups',
  name: 'Groups of a measure',
  value: z.string().regex(/^[2-4](\+[2-4]){1,6}$/, 'groups are written as in 2+2+3.'),
  scopes: ['version'],
  says: (value) => `grouped ${value}`,
});
