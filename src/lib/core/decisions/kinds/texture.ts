import { z } from 'zod';
import { levelText } from '../../arrange/levels';
import { orTeacherPattern } from '../../arrange/teacherPattern';
import {
  isForLevel,
  isForMetre,
  textureName,
  textureText,
  TEXTURE_IDS,
  TEXTURES,
  type Texture,
  type TextureId,
} from '../../arrange/textures';
import { defineKind, following, type Situation } from '../kind';
import { patternsFor } from '../private/patternsFor';

/** The built-in textures that can be named at all here. */
const known = ({ hasAccompaniment, isSingAlong }: Situation): TextureId[] =>
  TEXTURE_IDS.filter((id) => id !== 'own' || (hasAccompaniment && !isSingAlong));

const fitting = (at: Situation): Texture[] => [
  ...known(at).filter((id) => isForLevel(id, at.level, at.measure.time)),
  ...patternsFor('left', at).fitting,
];

/** What the left hand plays. */
export const texture = defineKind({
  id: 'texture',
  name: 'Left hand',
  stands: { measure: 'list' },
  words: 'figure pattern accompaniment arpeggio broken style bass riff thinner easier fuller hands',
  value: orTeacherPattern(z.enum(TEXTURE_IDS as [TextureId, ...TextureId[]])),
  scopes: ['measure', 'range', 'section', 'version'],
  says: (value) => `left hand: ${textureText(value)}`,
  choices: (at) => fitting(at).map((id) => [id, textureName(id)] as const),
  refused: (at) => [
    ...known(at)
      .filter((id) => isForMetre(id, at.measure.time) && TEXTURES[id].from > at.level)
      .map((id) => [TEXTURES[id].name, `from level ${levelText(TEXTURES[id].from)} on`] as const),
    ...patternsFor('left', at).refused,
  ],
  keys: [
    {
      press: 't',
      does: 'the next left-hand pattern for this measure',
      next: (current, at) => following(fitting(at), current),
    },
  ],
  option: 'texture',
});
