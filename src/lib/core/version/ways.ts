/** The ways that hold in each measure: the recipe's, over them those of its section, over them what is decided for the measure. */
import type { Form } from '../analysis/form';
import type { CountingOptions } from '../counting/count';
import type { PedalStyle } from '../pedal/pedal';
import type { TuneLine } from '../analysis/melody';
import type { TextureId } from '../arrange/textures';
import { decisionsOf, type Decision, type Recipe } from './recipe';

type SectionWays = Recipe['sections'][number];

/** What the recipe says of the section that holds a measure. */
function sectionWays(recipe: Recipe, form: Form): (measure: number) => SectionWays | undefined {
  const byStart = new Map(recipe.sections.map((s) => [s.measure, s]));
  const byMeasure: (SectionWays | undefined)[] = [];
  for (const { from, to } of form.sections)
    for (let measure = from; measure <= to; measure++) byMeasure[measure] = byStart.get(from);
  return (measure) => byMeasure[measure];
}

/** How each measure is counted; null where it is not. */
export function countingIn(recipe: Recipe, form: Form): (measure: number) => CountingOptions | null {
  const waysIn = sectionWays(recipe, form);
  return (measure) => {
    const school = waysIn(measure)?.counting ?? recipe.counting;
    return school === 'none' ? null : { school, cutTime: recipe.cutTime };
  };
}

/** The pedal of each measure. `allowed` is false at levels without one: then only what is decided for a section or measure counts. */
export function pedalIn(
  recipe: Recipe,
  decisions: readonly Decision[],
  form: Form,
  allowed: boolean,
): (measure: number) => PedalStyle | 'source' {
  const waysIn = sectionWays(recipe, form);
  const decided = new Map(decisionsOf(decisions, 'pedal').map((d) => [d.measure, d.style]));
  return (measure) => decided.get(measure) ?? waysIn(measure)?.pedal ?? (allowed ? recipe.pedal : 'none');
}

/** The texture that is wished for in each measure; null leaves it to the level. */
export function textureIn(
  recipe: Recipe,
  decisions: readonly Decision[],
  form: Form,
): (measure: number) => TextureId | null {
  const waysIn = sectionWays(recipe, form);
  const decided = new Map(decisionsOf(decisions, 'texture').map((d) => [d.measure, d.texture]));
  return (measure) => decided.get(measure) ?? waysIn(measure)?.texture ?? recipe.texture;
}

/** The line that has the tune in each measure, where it is chosen. */
export function tuneIn(recipe: Recipe, form: Form): (measure: number) => TuneLine | undefined {
  const waysIn = sectionWays(recipe, form);
  return (measure) => waysIn(measure)?.tune ?? recipe.tune ?? undefined;
}

/** The recipe with another way for the section that begins at a measure; undefined gives it back. */
export function withSectionWay<Key extends 'counting' | 'pedal' | 'texture' | 'tune'>(
  recipe: Recipe,
  measure: number,
  key: Key,
  value: NonNullable<Recipe[Key]> | undefined,
): Recipe {
  const { [key]: _before, ...rest } = recipe.sections.find((s) => s.measure === measure) ?? { measure };
  const others = recipe.sections.filter((s) => s.measure !== measure);
  const own = { ...rest, measure, ...(value === undefined ? {} : { [key]: value }) };
  return { ...recipe, sections: Object.keys(own).length > 1 ? [...others, own] : others };
}
