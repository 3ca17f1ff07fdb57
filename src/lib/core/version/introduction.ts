import { instrumentals } from '../analysis/instrumentals';
import type { Score } from '../score/score';
import type { Recipe } from './recipe';

/** Measures that a sing-along begins with, unless the source brings an introduction of its own. */
export function introductionOf(source: Score, recipe: Recipe): number {
  if (recipe.style !== 'sing-along') return 0;
  if (recipe.introduction !== null) return recipe.introduction;
  const isOwn = /^intro/i.test(source.measures[0]?.section ?? '') || instrumentals(source)[0]?.from === 0;
  return isOwn ? 0 : 2;
}
