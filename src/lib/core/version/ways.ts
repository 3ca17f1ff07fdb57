/** The ways that hold in each measure: the recipe's, over them those of its section, over them what is decided for the measure. */
import type { CountingOptions } from '../counting/count';
import type { PedalStyle } from '../pedal/pedal';
import { decisionsOf, type Decision, type Recipe } from './recipe';

/** The entry of a recipe's sections that holds in a measure. */
const sectionAt = (recipe: Recipe, measure: number): Recipe['sections'][number] | undefined =>
  recipe.sections.filter((s) => s.measure <= measure).sort((a, b) => b.measure - a.measure)[0];

/** How a measure is counted; null where it is not. */
export function countingIn(recipe: Recipe, measure: number): CountingOptions | null {
  const school = sectionAt(recipe, measure)?.counting ?? recipe.counting;
  return school === 'none' ? null : { school, cutTime: recipe.cutTime };
}

/** The pedal that a measure has. `allowed` is false at levels and on keyboards without one: then only what is decided counts. */
export function pedalIn(
  recipe: Recipe,
  decisions: readonly Decision[],
  allowed: boolean,
): (measure: number) => PedalStyle | 'source' {
  const decided = new Map(decisionsOf(decisions, 'pedal').map((d) => [d.measure, d.style]));
  return (measure) =>
    decided.get(measure) ?? sectionAt(recipe, measure)?.pedal ?? (allowed ? recipe.pedal : 'none');
}
