import { z } from 'zod';
import { SONG_STYLE_IDS, SONG_STYLES } from '../../arrange/arranged';
import { inSentence } from '../../capital';
import { defineKind } from '../kind';

/** Whether the hands play the melody of a passage or chords for who sings it; for the whole version the recipe says it. */
export const style = defineKind({
  id: 'style',
  name: 'Style',
  stands: { measure: 'list' },
  words: 'solo sing-along singer voice accompany introduction interlude intro riff melody verse chorus',
  value: z.enum(SONG_STYLE_IDS),
  scopes: ['measure', 'range', 'section'],
  says: (value) => inSentence(SONG_STYLES[value]),
  choices: ({ melodyLines }) =>
    melodyLines.length === 0 ? [] : SONG_STYLE_IDS.map((id) => [id, SONG_STYLES[id]] as const),
});
