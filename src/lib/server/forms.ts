/** Forms: what was sent, checked by a schema, with one sentence per field that is wrong. */
import { error } from '@sveltejs/kit';
import type { z } from 'zod';

/** The form of a request. Throws 400 where it is none, or was cut off. */
export const formOf = (request: Request): Promise<FormData> =>
  request.formData().catch(() => error(400, 'This form couldn’t be read. Send it again.'));

type FormResult<T> =
  | { readonly ok: true; readonly data: T }
  | {
      readonly ok: false;
      readonly problems: Record<string, string>;
      readonly values: Record<string, string>;
    };

/** Reads a form's fields by a schema; what was typed comes back with the problems, so that nothing is lost. */
export function readForm<T>(form: FormData, schema: z.ZodType<T>): FormResult<T> {
  const values = Object.fromEntries([...form].filter((e): e is [string, string] => typeof e[1] === 'string'));
  const parsed = schema.safeParse(values);
  if (parsed.success) return { ok: true, data: parsed.data };
  const problems: Record<string, string> = {};
  for (const issue of parsed.error.issues) problems[String(issue.path[0] ?? '')] ??= issue.message;
  return { ok: false, problems, values };
}
