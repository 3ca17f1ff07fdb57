import { z } from 'zod';
import { MELODY_LINE_NAMES, MELODY_LINES } from '../../analysis/melody';
import { defineKind } from '../kind';

/** The line of the source that has the melody. */
export const melody = defineKind({
  id: 'melody',
  name: 'Melody',
  stands: { measure: 'list' },
  words: 'tune line who voice hands riff',
  value: z.enum(MELODY_LINES),
  scopes: ['range', 'section', 'version'],
  says: (value) => `${MELODY_LINE_NAMES[value]} has the melody`,
  choices: ({ melodyLines }) =>
    MELODY_LINES.filter((line) => melodyLines.length > 1 && melodyLines.includes(line)).map(
      (line) => [line, MELODY_LINE_NAMES[line]] as const,
    ),
  option: 'melody',
});
