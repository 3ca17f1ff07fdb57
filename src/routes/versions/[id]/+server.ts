import { decisionsSchema, recipeSchema } from '$core/version/recipe';
import { db } from '$server/db';
import { saveVersion } from '$server/studio/versions';
import { json } from '@sveltejs/kit';
import { z } from 'zod';
import type { RequestHandler } from './$types';

const changeSchema = z.object({
  recipe: recipeSchema,
  decisions: decisionsSchema,
  basedOn: z.number().int(),
});

/** Saves a change of recipe or decisions as the next revision. */
export const PUT: RequestHandler = async ({ params, request }) => {
  const change = changeSchema.safeParse(await request.json().catch(() => undefined));
  if (!change.success) return json({ message: 'This change could not be understood.' }, { status: 400 });
  const result = saveVersion(db(), params.id, change.data);
  if (!result) return json({ message: 'This version is no longer there.' }, { status: 404 });
  if (!result.saved)
    return json(
      {
        message:
          'This version was changed in another window. Reload to see it; your last change is not saved.',
      },
      { status: 409 },
    );
  return json({ revision: result.revision });
};
