import { z } from 'zod';
import { PEDAL_MARKS, type FootMark } from '../../pedal/foot';
import { defineKind, following } from '../kind';

const NAMES: Readonly<Record<FootMark, string>> = {
  down: 'pedal down',
  change: 'pedal change',
  up: 'pedal up',
  none: 'no pedal mark',
};

/** What the foot does at a note, whatever the style of its measure. */
export const pedalMark = defineKind({
  id: 'pedal mark',
  name: 'Pedal at this note',
  isOfOneNote: true,
  words: 'sustain damper foot',
  value: z.enum(PEDAL_MARKS),
  scopes: ['note'],
  says: (value) => `pedal: ${NAMES[value]}`,
  choices: () => PEDAL_MARKS.map((id) => [id, NAMES[id]] as const),
  keys: [
    {
      press: 'Shift+p',
      does: 'pedal down, change, up or nothing at this note',
      next: (current) => following(PEDAL_MARKS, current),
    },
  ],
});
