import { z } from 'zod';
import { keyName, parseKey } from '../../theory/key';
import { defineKind } from '../kind';

/** The key that a piece is at home in, by its short name, against what was heard. A correction of the piece: see version/mend.ts. */
export const home = defineKind({
  id: 'home',
  name: 'Home key',
  value: z.string().refine((code) => parseKey(code) !== undefined, 'this is not the name of a key.'),
  scopes: ['version'],
  says: (code) => `at home in ${keyName(parseKey(code)!)}`,
});
