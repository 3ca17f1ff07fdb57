import { inSentence } from '../../capital';
import { z } from 'zod';
import { isForLevel, TEXTURE_IDS, TEXTURES, type TextureId } from '../../arrange/textures';
import { defineKind, following, type Situation } from '../kind';

const fitting = ({ level, measure, hasAccompaniment, isSingAlong }: Situation): TextureId[] =>
  TEXTURE_IDS.filter(
    (id) => isForLevel(id, level, measure.time) && (id !== 'own' || (hasAccompaniment && !isSingAlong)),
  );

/** What the left hand plays. */
export const texture = defineKind({
  id: 'texture',
  name: 'Left hand',
  stands: { measure: 'list' },
  words: 'figure pattern accompaniment arpeggio broken style bass riff thinner easier fuller hands',
  value: z.enum(TEXTURE_IDS as [TextureId, ...TextureId[]]),
  scopes: ['measure', 'range', 'section', 'version'],
  says: (value) => `left hand: ${inSentence(TEXTURES[value].name)}`,
  choices: (at) => fitting(at).map((id) => [id, TEXTURES[id].name] as const),
  keys: [
    {
      press: 't',
      does: 'the next left-hand pattern for this measure',
      next: (current, at) => following(fitting(at), current),
    },
  ],
  option: 'texture',
});
