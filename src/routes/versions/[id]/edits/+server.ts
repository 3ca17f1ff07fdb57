import { patchSchema } from '$core/edits/edit';
import { db } from '$server/db';
import { readySoon } from '$server/ready';
import { saveEdit, savedState, stepBack, type SaveResult } from '$server/studio/versions';
import { json } from '@sveltejs/kit';
import { z } from 'zod';
import type { RequestHandler } from './$types';

const changeSchema = z.union([
  z.object({ patches: patchSchema, basedOn: z.number().int().min(0) }),
  z.object({ step: z.enum(['undo', 'redo']) }),
]);

const gone = () => json({ message: 'This version is no longer there.' }, { status: 404 });

/** What the page knows already is not sent: the document only where it is not what a page expects after its change. */
function answered(result: SaveResult, expected?: number): Response {
  if (!result) return gone();
  const { document, ...rest } = result;
  return json(rest.edit === expected && !rest.refused ? rest : { ...rest, document });
}

/** What is saved of a version now. */
export const GET: RequestHandler = ({ params }) => answered(savedState(db(), params.id));

/** Saves a change as an edit, or takes the last one back, or makes it again. */
export const POST: RequestHandler = async ({ params, request }) => {
  const change = changeSchema.safeParse(await request.json().catch(() => undefined));
  const misunderstood = () => json({ message: 'This change could not be understood.' }, { status: 400 });
  if (!change.success) return misunderstood();
  if ('step' in change.data) {
    readySoon(params.id);
    return answered(stepBack(db(), params.id, change.data.step));
  }
  const { patches, basedOn } = change.data;
  let result: SaveResult;
  try {
    result = saveEdit(db(), params.id, { patches, basedOn });
  } catch (error) {
    // A patch that fits no document is a fault of whoever sent it; what fails otherwise is one of ours.
    if (error instanceof z.ZodError || (error instanceof Error && error.message.startsWith('There is no ')))
      return misunderstood();
    throw error;
  }
  readySoon(params.id);
  return answered(result, basedOn + 1);
};
