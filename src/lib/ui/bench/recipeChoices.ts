/** The settings of a version that have a few values, as the bench's controls and its searched list both offer them. */
import { IDIOM_IDS, IDIOMS, type Idiom } from '$core/analysis/idioms';
import { inSentence } from '$core/capital';
import type { Feel } from '$core/counting/feel';
import type { Recipe } from '$core/version/recipe';

export interface RecipeChoice<Value> {
  readonly value: Value;
  readonly label: string;
  readonly note?: string;
}

export const STYLES: RecipeChoice<Recipe['style']>[] = [
  { value: 'solo', label: 'solo', note: 'the right hand plays the melody' },
  { value: 'sing-along', label: 'sing-along', note: 'chords in the right hand, bass in the left' },
];

export const COUNTED: RecipeChoice<Recipe['countFor']>[] = [
  { value: 'right', label: 'for the right hand' },
  { value: 'left', label: 'for the left hand' },
  { value: 'both', label: 'for hands together' },
];

export const FEELS: RecipeChoice<Feel>[] = [
  { value: 'straight', label: 'straight' },
  { value: 'swing', label: 'swing' },
];

export const INTRODUCTIONS: RecipeChoice<NonNullable<Recipe['introduction']>>[] = [
  { value: 0, label: 'none' },
  { value: 2, label: '2 measures' },
  { value: 4, label: '4 measures' },
];

export const MUSIC_KINDS: RecipeChoice<Idiom>[] = IDIOM_IDS.map((id) => ({
  value: id,
  label: inSentence(IDIOMS[id].name),
  note: IDIOMS[id].says,
}));
