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

/**
 * The answer to a form that meets another change.
 *
 * @param there what is saved now, field by field in words
 * @param was what the form is filled in over from now on: the next time it is meant
 */
export const meanwhile = (there: readonly string[], was: unknown) =>
  fail(409, {
    message: `Changed in another window: ${there.join('; ')}. Your entries are still here; press Save to use them.`,
    was: JSON.stringify(was),
  });
