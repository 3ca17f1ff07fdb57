/** What forms say where another window has changed the same meanwhile: what is there now, and that nothing typed is lost. */
import { fail } from '@sveltejs/kit';
import type { z } from 'zod';

/** What a form was filled in over, as far as it says; a part of it that cannot be read was not seen. */
export function wasIn<S extends z.ZodObject>(form: FormData, schema: S): Partial<z.infer<S>> {
  try {
    const said = JSON.parse(String(form.get('was') ?? '{}')) as object;
    const parsed = schema.partial().safeParse(said);
    // A field with a default is not said for that.
    const own = Object.entries(parsed.data ?? {}).filter(([field]) => field in said);
    return Object.fromEntries(own) as Partial<z.infer<S>>;
  } catch {
    return {};
  }
}

/** What a change has met: the fields that another window has changed otherwise, and all of it as it is saved. */
interface Met<T> {
  readonly fields: readonly (keyof T)[];
  readonly there: T;
}

/**
 * The answer to a form that meets another change. From now on it is filled in over what it has been told of, and no more: pressed again it
 * is meant there, and what else was changed meanwhile stays.
 *
 * @param was what it was filled in over
 * @param texts what is saved, in words, by field
 */
export function meanwhile<T extends object>(
  { fields, there }: Met<T>,
  was: Partial<T>,
  texts: (field: keyof T, there: T) => string,
) {
  const told = Object.fromEntries(fields.map((field) => [field, there[field]]));
  return fail(409, {
    message: `Changed in another window: ${fields.map((field) => texts(field, there)).join('; ')}. Your entries are still here; press Save to use them.`,
    was: JSON.stringify({ ...was, ...told }),
  });
}
