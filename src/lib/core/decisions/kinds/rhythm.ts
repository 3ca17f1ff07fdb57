import { inSentence } from '../../capital';
import { z } from 'zod';
import { CHORD_RHYTHM_IDS, CHORD_RHYTHMS, type ChordRhythm } from '../../arrange/singAlong';
import { defineKind } from '../kind';

/** The rhythm in which the right hand plays the chords of a sing-along. */
export const rhythm = defineKind({
  id: 'rhythm',
  name: 'Chord rhythm',
  stands: { measure: 'list' },
  words: 'rhythm repeated strokes riff pattern style',
  value: z.enum(CHORD_RHYTHM_IDS as [ChordRhythm, ...ChordRhythm[]]),
  scopes: ['measure', 'range', 'section', 'version'],
  says: (value) => `chords: ${inSentence(CHORD_RHYTHMS[value].name)}`,
  choices: ({ isSingAlong, level }) =>
    isSingAlong
      ? CHORD_RHYTHM_IDS.filter((id) => CHORD_RHYTHMS[id].from <= level).map(
          (id) => [id, CHORD_RHYTHMS[id].name] as const,
        )
      : [],
  option: 'rhythm',
});
