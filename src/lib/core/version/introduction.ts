import type { Score } from '../score/score';
import type { Recipe } from './recipe';

/** Measures that a sing-along begins with, unless the source brings an introduction of its own. */
export function introductionOf(source: Score, recipe: Recipe): number {
  if (recipe.style !== 'sing-along') return 0;
  if (recipe.introduction !== null) return recipe.introduction;
  return /^intro/i.test(source.measures[0]?.section ?? '') ? 0 : 2;
}
