/**
 * A change of a version as an edit: the patch that makes the new document of the old one, and its inverse. Edits are only ever
 * added. Undo and redo are edits too, so they can be undone in their turn, after a restart and in another window.
 *
 * @example
 * const made = editing(document, (draft) => void (draft.recipe.level = 3));
 * patched(document, made.patches).recipe.level; // 3
 * patched(made.document, made.inverse).recipe.level; // as before
 */
import { apply, create } from 'mutative';
import { z } from 'zod';
import { InputError } from '../io/inputError';
import { documentSchema, MOST_DECISIONS, type VersionDocument } from '../version/document';
import type { Recipe } from '../version/recipe';

export const patchSchema = z
  .array(
    z.object({
      op: z.enum(['add', 'replace', 'remove']),
      // No name that an object has by nature.
      path: z
        .array(
          z.union([
            z
              .string()
              .max(200)
              .regex(/^(?!__proto__$|constructor$|prototype$)/),
            z.number(),
          ]),
        )
        .min(2)
        .max(12),
      value: z.unknown().optional(),
    }),
  )
  .min(1)
  .max(40_000);

export type Patch = z.infer<typeof patchSchema>;

export interface Edited {
  readonly document: VersionDocument;
  readonly patches: Patch;
  readonly inverse: Patch;
}

type Writable<T> = { -readonly [K in keyof T]: Writable<T[K]> };

/** Makes an edit of what is done to a draft. Without any change both patches are empty. */
export function editing(
  document: VersionDocument,
  change: (draft: Writable<VersionDocument>) => void,
): Edited {
  const [next, patches, inverse] = create(document as Writable<VersionDocument>, change, {
    enablePatches: { pathAsArray: true },
  });
  return { document: next, patches: patches as Patch, inverse: inverse as Patch };
}

/** The edit that turns one document into another. */
export const editTo = (from: VersionDocument, to: VersionDocument): Edited =>
  editing(from, (draft) => {
    for (const key of Object.keys(to.recipe) as (keyof VersionDocument['recipe'])[])
      if (!same(draft.recipe[key], to.recipe[key]))
        (draft.recipe as Record<string, unknown>)[key] = to.recipe[key];
    for (const subject of Object.keys(draft.decisions))
      if (!(subject in to.decisions)) delete draft.decisions[subject];
    for (const [subject, decision] of Object.entries(to.decisions))
      if (!same(draft.decisions[subject], decision)) draft.decisions[subject] = decision;
  });

const same = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b);

/**
 * Makes a patch on a document. What it touches is kept as the schema reads it, and nothing that the schema does not know; the patches that
 * come back do just that. Throws where the patch does not fit the document, or makes something that is none; what it leaves alone was
 * checked before.
 */
export function patching(document: VersionDocument, patch: Patch): Edited {
  const { recipe, decisions } = editing(document, (draft) =>
    patch.forEach((step) => applyStep(draft, step)),
  ).document;
  const [settings, subjects] = (['recipe', 'decisions'] as const).map((part) => [
    ...new Set(patch.flatMap(({ path }) => (path[0] === part ? [String(path[1])] : []))),
  ]) as [string[], string[]];
  const read = documentSchema.parse({
    recipe,
    decisions: Object.fromEntries(
      subjects.flatMap((name) => (Object.hasOwn(decisions, name) ? [[name, decisions[name]]] : [])),
    ),
  });
  const edited = editing(document, (draft) => {
    const settingsNow = draft.recipe as Record<string, unknown>;
    for (const name of settings)
      if (Object.hasOwn(read.recipe, name) && !same(settingsNow[name], read.recipe[name as keyof Recipe]))
        settingsNow[name] = read.recipe[name as keyof Recipe];
    for (const name of subjects) {
      const decision = read.decisions[name];
      if (!decision) delete draft.decisions[name];
      else if (!same(draft.decisions[name], decision)) draft.decisions[name] = decision;
    }
  });
  if (Object.keys(edited.document.decisions).length > MOST_DECISIONS)
    throw new InputError(
      `A version can have ${MOST_DECISIONS.toLocaleString('en')} choices. Reset some that you no longer need.`,
    );
  return edited;
}

function applyStep(draft: object, { op, path, value }: Patch[number]): void {
  const [place, last] = [path.slice(0, -1), path.at(-1)];
  const parent = place.reduce<unknown>(
    (at, key) => (at as Record<string, unknown> | undefined)?.[key],
    draft,
  );
  const isThere = typeof parent === 'object' && parent !== null && last !== undefined;
  if (!isThere || !['recipe', 'decisions'].includes(String(path[0])))
    throw new Error(`There is no ${path.join('/')} in a version.`);
  if (op === 'remove') delete (parent as Record<string, unknown>)[last];
  else (parent as Record<string, unknown>)[last] = value;
}

/** A document after a patch. Throws as `patching` does. */
export const patched = (document: VersionDocument, patch: Patch): VersionDocument =>
  patching(document, patch).document;

/** The same for an edit that was checked when it was saved. */
export const replayed = (document: VersionDocument, patch: Patch): VersionDocument =>
  apply(document as object, patch as never) as VersionDocument;

/** What a patch touches: a decision, or a setting of the recipe. Patches that touch different things can be made in any order. */
const touched = (patch: Patch): Set<string> => new Set(patch.map(({ path }) => path.slice(0, 2).join('/')));

/** Whether what a patch touches is the same in two documents. */
export const isSameWhere = (patch: Patch, one: VersionDocument, other: VersionDocument): boolean =>
  [...touched(patch)].every((place) => {
    const cut = place.indexOf('/');
    const [part, name] = [place.slice(0, cut) as 'recipe' | 'decisions', place.slice(cut + 1)];
    const valueIn = (of: VersionDocument): unknown => (of[part] as Record<string, unknown>)[name];
    return same(valueIn(one), valueIn(other));
  });

export const meet = (a: Patch, b: Patch): boolean => {
  const others = touched(b);
  return [...touched(a)].some((place) => others.has(place));
};
