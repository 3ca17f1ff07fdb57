/** What a command is given and what it gives back, and what several of them say in the same way. */
import type { LevelContract } from '../lib/core/arrange/levels';
import { REACH_SEMITONES } from '../lib/core/hands/register';
import type { Score } from '../lib/core/score/score';
import type { Recipe } from '../lib/core/version/recipe';
import type { Values } from './options';

/** Music goes out as a file, a set of it as one, everything else as JSON. `found` says that a check found something, `says` is for standard error. */
export type Outcome =
  | { readonly music: Score; readonly report?: unknown }
  | { readonly set: readonly { readonly name: string; readonly music: Score }[] }
  | { readonly json: unknown; readonly found?: boolean; readonly says?: readonly string[] };

export interface Input {
  readonly score: Score;
  readonly warnings: readonly string[];
  /** Who has the tune of a band, where several have it. */
  readonly tune: readonly { readonly from: number; readonly to: number; readonly player: string }[];
  readonly values: Values;
  /** The recipe file, read, if one was given. */
  readonly recipeFile?: unknown;
  /** The levels of --levels, or those that ship. */
  readonly levels: readonly LevelContract[];
}

/** A measure's number as it is printed: a number where it is one. */
export const numberOf = (score: Score, index: number): number | string => {
  const { number } = score.measures[index]!;
  return /^\d+$/.test(number) ? Number(number) : number;
};

/** Reach of both hands in semitones. */
export const reachOf = (recipe: Recipe) => ({
  right: REACH_SEMITONES[recipe.reach.right],
  left: REACH_SEMITONES[recipe.reach.left],
});
