import { InputError } from '$core/io/inputError';
import { patchSchema } from '$core/edits/edit';
import type { EditWindow } from '$core/edits/history';
import { gone } from '$server/gone';
import { windowOf } from '$server/guard/window';
import { db } from '$server/db';
import { readySoon } from '$server/ready';
import { saveEdit, savedState, stepBack, type SaveResult } from '$server/studio/versions';
import { json } from '@sveltejs/kit';
import { z } from 'zod';
import type { RequestHandler } from './$types';

/** Most choices that one change can set: what is selected by hand has a few hundred. */
const MOST_STEPS = 5000;

/** The newest edit that there was when the window was opened. */
const since = z.coerce.number().int().min(0).optional();
const changeSchema = z.union([
  z.object({ patches: patchSchema, basedOn: z.number().int().min(0), since }),
  z.object({ step: z.enum(['undo', 'redo']), since }),
]);

/** The window that asks: without a name of its own, all edits count as its own. */
function windowAt(request: Request, opened: number | undefined): EditWindow | undefined {
  const window = opened === undefined ? undefined : windowOf(request);
  return window && { ...window, since: opened! };
}

const versionGone = () => json({ message: gone('version') }, { status: 404 });

/** What the page knows already is not sent: the document only where it is not what a page expects after its change. */
function answered(result: SaveResult, expected?: number): Response {
  if (!result) return versionGone();
  const { document, ...rest } = result;
  return json(rest.edit === expected && !rest.refused ? rest : { ...rest, document });
}

/** What is saved of a version now. */
export const GET: RequestHandler = ({ params, url, request }) => {
  const opened = since.safeParse(url.searchParams.get('since') ?? undefined).data;
  return answered(savedState(db(), params.id, windowAt(request, opened)));
};

/** Saves a change as an edit, or takes the last one back, or makes it again. */
export const POST: RequestHandler = async ({ params, request }) => {
  const sent: unknown = await request.json().catch(() => undefined);
  const steps = z.object({ patches: z.array(z.unknown()) }).safeParse(sent).data?.patches.length ?? 0;
  if (steps > MOST_STEPS)
    return json(
      {
        message: `This change sets ${steps.toLocaleString('en')} choices; one change can set ${MOST_STEPS.toLocaleString('en')}. Select less at once. Nothing was changed.`,
      },
      { status: 413 },
    );
  const change = changeSchema.safeParse(sent);
  const misunderstood = () => json({ message: 'This change couldn’t be understood.' }, { status: 400 });
  if (!change.success) return misunderstood();
  const window = windowAt(request, change.data.since);
  if ('step' in change.data) {
    readySoon(params.id);
    return answered(stepBack(db(), params.id, change.data.step, window));
  }
  const { patches, basedOn } = change.data;
  let result: SaveResult;
  try {
    result = saveEdit(db(), params.id, { patches, basedOn, window });
  } catch (error) {
    if (error instanceof InputError) return json({ message: error.message }, { status: 422 });
    // A patch that fits no document is a fault of whoever sent it; what fails otherwise is one of ours.
    if (error instanceof z.ZodError || (error instanceof Error && error.message.startsWith('There is no ')))
      return misunderstood();
    throw error;
  }
  readySoon(params.id);
  return answered(result, basedOn + 1);
};
