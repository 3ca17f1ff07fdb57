import { z } from 'zod';
import { SONG_STYLES, type SongStyle } from '../../arrange/arranged';
import { defineKind } from '../kind';

const NAMES: Readonly<Record<SongStyle, string>> = {
  solo: 'Melody played',
  'sing-along': 'Chords to sing to',
};

/** Whether the hands play the melody of a passage or chords for who sings it; for the whole version the recipe says it. */
export const style = defineKind({
  id: 'style',
  name: 'Style',
  stands: { measure: 'list' },
  words: 'solo sing-along singer voice accompany introduction interlude intro riff melody verse chorus',
  value: z.enum(SONG_STYLES),
  scopes: ['measure', 'range', 'section'],
  says: (value) => (value === 'solo' ? 'the melody is played' : 'chords to sing to'),
  choices: ({ melodyLines }) =>
    melodyLines.length === 0 ? [] : SONG_STYLES.map((id) => [id, NAMES[id]] as const),
});
