/** The settings of a version that have a few values, as the bench's controls and its searched list both offer them. */
import { IDIOM_IDS, IDIOMS, type Idiom } from '$core/analysis/idioms';
import { inSentence } from '$core/capital';
import type { Feel } from '$core/counting/feel';
import type { Version } from '$core/version/realise';
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

/** The style of a version: as its settings have it, but that music without a melody is always sung to. */
export const styleOf = (recipe: Recipe, made: Pick<Version, 'melody'> | undefined): Recipe['style'] =>
  made?.melody.has.length === 0 ? 'sing-along' : recipe.style;

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
