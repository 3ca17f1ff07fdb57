import { InputError } from '$core/io/inputError';
import { MOST_BYTES, tooLarge } from '$core/io/limits';
import { partChoicesSchema } from '$core/score/parts';
import { keyName } from '$core/theory/key';
import { db } from '$server/db';
import { addPiece, listPieces, RIGHTS } from '$server/studio/pieces';
import { pieceSummaries } from '$server/studio/summaries';
import { previewOf } from '$lib/engrave/preview';
import { levelsMade } from '$server/studio/versions';
import { fail, redirect, type ActionFailure } from '@sveltejs/kit';
import { z } from 'zod';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = () => {
  const summaries = pieceSummaries(db());
  const made = levelsMade(db());
  return {
    pieces: listPieces(db()).map(({ sourceName: _file, ...piece }) => {
      const { key, ...facts } = summaries.get(piece.id)!;
      return { ...piece, ...facts, key: keyName(key), levels: made.get(piece.id) ?? [] };
    }),
    rights: RIGHTS,
  };
};

/** The form around the file takes a little room as well. */
const MOST_FORM = MOST_BYTES + 64 * 1024;

const json = z.string().transform((text, context) => {
  try {
    return JSON.parse(text) as unknown;
  } catch {
    context.addIssue({ code: 'custom', message: 'This is not JSON.' });
    return z.NEVER;
  }
});

const bringSchema = z.object({
  rights: z.enum(RIGHTS).catch('not known'),
  title: z.string().trim().max(200, 'A title has at most 200 letters.').optional(),
  composer: z.string().trim().max(200, 'A name has at most 200 letters.').optional(),
  parts: json.pipe(partChoicesSchema).optional(),
});

type Brought = z.infer<typeof bringSchema> & { name: string; bytes: Uint8Array };

/** What was sent, or why it cannot be used. */
async function brought(request: Request): Promise<Brought | ActionFailure<{ message: string }>> {
  // Judged before it is read: a file of any size must not fill the memory.
  const length = Number(request.headers.get('content-length'));
  if (length > MOST_FORM)
    return fail(413, { message: tooLarge('The file', length) ?? 'The file is too large.' });
  const data = await request.formData().catch(() => undefined);
  const file = data?.get('file');
  if (!data || !(file instanceof File) || file.name === '')
    return fail(400, { message: 'No file arrived. Choose a file and try again.' });
  const wishes = bringSchema.safeParse(
    Object.fromEntries([...data].filter((entry) => typeof entry[1] === 'string')),
  );
  if (!wishes.success) return fail(400, { message: wishes.error.issues[0]!.message });
  return { ...wishes.data, name: file.name, bytes: new Uint8Array(await file.arrayBuffer()) };
}

/** Runs a step that reads a file; what is wrong with the file becomes a message. */
function reading<T>(step: () => T): T | ActionFailure<{ message: string }> {
  try {
    return step();
  } catch (error) {
    if (error instanceof InputError) return fail(422, { message: error.message });
    throw error;
  }
}

const isFailure = (value: object): value is ActionFailure<{ message: string }> => 'status' in value;

export const actions: Actions = {
  /** What is in a file; nothing is kept. */
  look: async ({ request }) => {
    const file = await brought(request);
    if (isFailure(file)) return file;
    const preview = reading(() => previewOf(file, file.parts));
    return isFailure(preview) ? preview : { preview };
  },
  keep: async ({ request }) => {
    const file = await brought(request);
    if (isFailure(file)) return file;
    const added = reading(() => addPiece(db(), file));
    if (isFailure(added)) return added;
    redirect(303, `/pieces/${added.id}`);
  },
};
