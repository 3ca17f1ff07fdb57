import { lineText } from '$core/plainText';
import { gone } from '$server/gone';
import { InputError } from '$core/io/inputError';
import { MOST_BYTES, tooLarge } from '$core/io/limits';
import { partChoicesSchema } from '$core/score/parts';
import { keyName } from '$core/theory/key';
import { db } from '$server/db';
import { pathOf, work } from '$server/pool';
import { WorkStopped } from '$server/pool/work';
import { isLongFile, keepPiece, listPieces, RIGHTS } from '$server/studio/pieces';
import { once } from '$server/studio/once';
import { pieceSummaries } from '$server/studio/summaries';
import { learnersByPiece } from '$server/studio/assignments';
import { lastUsed, levelsMade, versionsByPiece } from '$server/studio/versions';
import { fail, redirect, type ActionFailure } from '@sveltejs/kit';
import { z } from 'zod';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = async () => {
  const summaries = await pieceSummaries(db(), work);
  const made = levelsMade(db());
  const versions = versionsByPiece(db());
  const used = lastUsed(db());
  const holders = learnersByPiece(db());
  return {
    pieces: listPieces(db()).map(({ sourceName: _file, ...piece }) => {
      const summary = summaries.get(piece.id) ?? { problem: gone('piece') };
      const levels = made.get(piece.id) ?? [];
      const own = versions.get(piece.id) ?? [];
      const found = {
        unsigned: own.filter((v) => v.signedEdit === null || v.signedEdit < v.edit).length,
        styles: [...new Set(own.map((v) => v.style))],
        learners: holders.get(piece.id) ?? [],
        used: own.map((v) => used.get(v.id) ?? '').reduce((a, b) => (a > b ? a : b), ''),
      };
      if ('problem' in summary) return { ...piece, levels, ...found, problem: summary.problem };
      const { key, ...facts } = summary;
      return { ...piece, ...facts, ...found, key: keyName(key), levels };
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
  title: lineText().max(200, 'A title has at most 200 letters.').optional(),
  composer: lineText().max(200, 'A name has at most 200 letters.').optional(),
  parts: json.pipe(partChoicesSchema).optional(),
  /** Measures to be shown at most. */
  shown: z.coerce.number().int().min(1).max(64).optional(),
  once: z.string().optional(),
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
async function reading<T>(step: () => Promise<T>): Promise<T | ActionFailure<{ message: string }>> {
  try {
    return await step();
  } catch (error) {
    if (error instanceof InputError || error instanceof WorkStopped)
      return fail(422, { message: error.message });
    throw error;
  }
}

const asked = ({ name, bytes }: Brought, { signal, url }: Request) => ({
  signal,
  path: pathOf(url),
  isLong: isLongFile(name, bytes.length),
});

const isFailure = (value: object): value is ActionFailure<{ message: string }> => 'status' in value;

export const actions: Actions = {
  /** What is in a file; nothing is kept. */
  look: async ({ request }) => {
    const file = await brought(request);
    if (isFailure(file)) return file;
    const { name, bytes, parts, shown } = file;
    const preview = await reading(() => work('preview', { name, bytes, parts, shown }, asked(file, request)));
    return isFailure(preview) ? preview : { preview };
  },
  keep: async ({ request }) => {
    const file = await brought(request);
    if (isFailure(file)) return file;
    const { name, bytes } = file;
    const found = await reading(() => work('read', { name, bytes }, asked(file, request)));
    if (isFailure(found)) return found;
    redirect(303, `/pieces/${once(db(), file.once, (tx) => keepPiece(tx, file, found))}`);
  },
};
