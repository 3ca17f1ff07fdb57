/**
 * What is saved of a version: its recipe and what the teacher has decided. Decisions are kept by what they are about, so that an
 * edit of one touches no other, and two windows that edit different things do not meet.
 */
import { z } from 'zod';
import { subjectOf } from '../decisions/decide';
import { decisionSchema, type Decision } from '../decisions/registry';
import { recipeSchema, type Recipe } from './recipe';

export interface VersionDocument {
  readonly recipe: Recipe;
  /** By `subjectOf` each. */
  readonly decisions: Readonly<Record<string, Decision>>;
}

/** Most decisions of a version. */
export const MOST_DECISIONS = 20_000;

export const documentSchema = z.object({
  recipe: recipeSchema,
  decisions: z
    .record(z.string().max(200), decisionSchema)
    .refine((all) => Object.keys(all).length <= MOST_DECISIONS, 'One version can’t hold that many choices.')
    .refine(
      (all) => Object.entries(all).every(([subject, decision]) => subject === subjectOf(decision)),
      'A choice is stored under the wrong place.',
    ),
});

/** A document from a recipe and a list of decisions; of two about the same the later one stays. */
export const documentOf = (recipe: Recipe, decisions: readonly Decision[] = []): VersionDocument => ({
  recipe,
  decisions: Object.fromEntries(decisions.map((d) => [subjectOf(d), d])),
});

/** The decisions of a document, in the order in which they were made. */
export const listed = ({ decisions }: VersionDocument): Decision[] => Object.values(decisions);
