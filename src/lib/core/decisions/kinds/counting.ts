import { z } from 'zod';
import { SCHOOL_IDS, SCHOOLS } from '../../counting/schools';
import { defineKind } from '../kind';

/** The school in which is counted, or that nothing is counted. */
export const counting = defineKind({
  id: 'counting',
  name: 'Counting',
  stands: { measure: 'field' },
  words: 'count system syllables',
  value: z.enum([...SCHOOL_IDS, 'none']),
  scopes: ['measure', 'range', 'section', 'version'],
  says: (value) => (value === 'none' ? 'not counted' : `counted in ${SCHOOLS[value].name}`),
  choices: () => [
    ...SCHOOL_IDS.map((id) => [id, SCHOOLS[id].name] as const),
    ['none', 'not counted'] as const,
  ],
  option: 'counting',
  optionNames: { 'ta-ti-ti': 'ta-titi', 'ta-ka-di-mi': 'takadimi' },
});
