import { z } from 'zod';
import { PEDAL_STYLE_NAMES, PEDAL_STYLES } from '../../pedal/pedal';
import { defineKind, following } from '../kind';

/** How the pedal is used; `source` keeps the marks that the piece came with. */
export const pedal = defineKind({
  id: 'pedal',
  name: 'Pedal',
  stands: { measure: 'field' },
  words: 'sustain damper foot',
  value: z.enum([...PEDAL_STYLES, 'source']),
  scopes: ['measure', 'range', 'section', 'version'],
  says: (value) => `pedal: ${PEDAL_STYLE_NAMES[value]}`,
  choices: () => ([...PEDAL_STYLES, 'source'] as const).map((id) => [id, PEDAL_STYLE_NAMES[id]] as const),
  keys: [
    {
      press: 'p',
      does: 'the next pedal for this measure',
      next: (current) => following(PEDAL_STYLES, current),
    },
  ],
  option: 'pedal',
});
