import { lineText } from '../../plainText';
import { z } from 'zod';
import { ROLES } from '../../analysis/roles';
import { defineKind } from '../kind';

/** That a section begins with a measure, with its name and what it is for; or that none begins there. */
export const section = defineKind({
  id: 'section',
  name: 'Section',
  words: 'introduction intro verse chorus bridge interlude form part',
  value: z.union([
    z.literal('none'),
    z.strictObject({ name: lineText().max(60), role: z.enum(ROLES).optional() }),
  ]),
  scopes: ['measure'],
  says: (value) =>
    value === 'none'
      ? 'no section starts here'
      : `a section begins here${value.name ? `: ${value.name}` : ''}${value.role ? `, ${value.role}` : ''}`,
  choices: () => [
    [{ name: '' }, 'begins here'] as const,
    ['none', 'none begins here'] as const,
    ...ROLES.map((role) => [{ name: '', role }, `begins here: ${role}`] as const),
  ],
  written: {
    hint: 'Refrain, or Refrain (chorus)',
    read: (text) => {
      const named = /^(.*?)\s*(?:\(\s*(\w+)\s*\))?\s*$/.exec(text.trim());
      const role = ROLES.find((r) => r === named?.[2]?.toLowerCase());
      const name = (role ? named![1]! : text).trim().slice(0, 60);
      return name || role ? { name, ...(role ? { role } : {}) } : undefined;
    },
    show: (value) => (value === 'none' ? '' : `${value.name}${value.role ? ` (${value.role})` : ''}`.trim()),
  },
});
