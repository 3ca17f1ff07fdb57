import { z } from 'zod';
import { defineKind } from '../kind';

/** Whether repeats stand as signs or are written out. */
export const repeats = defineKind({
  id: 'repeats',
  name: 'Repeats',
  words: 'repeat written out again ending',
  value: z.enum(['signs', 'written out']),
  scopes: ['version'],
  says: (value) => (value === 'signs' ? 'repeat signs' : 'repeats written out'),
  choices: ({ hasRepeats }) =>
    hasRepeats ? [['signs', 'with repeat signs'] as const, ['written out', 'written out'] as const] : [],
  option: 'repeats',
  optionNames: { 'written-out': 'written out' },
});
