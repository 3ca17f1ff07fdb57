import { gone } from '$server/gone';
import { InputError } from '$core/io/inputError';
import { tooLarge } from '$core/io/limits';
import { keyName } from '$core/theory/key';
import { db } from '$server/db';
import { pathOf, work } from '$server/pool';
import { WorkStopped } from '$server/pool/work';
import { keepPiece, listPieces, RIGHTS } from '$server/studio/pieces';
import { once } from '$server/studio/once';
import { pieceSummaries } from '$server/studio/summaries';
import { learnersByPiece } from '$server/studio/assignments';
import { lastUsed, levelsMade, versionsByPiece } from '$server/studio/versions';
import { estimated, fileWithin, isHeavy } from '$server/studio/weight';
import { fail, redirect } from '@sveltejs/kit';
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

/** A form up to this size is looked through to know whether its file is heavy; a larger one is. In bytes. */
const LOOKED_THROUGH = 300_000;

/** Runs what reads the file that a request brings; what is wrong with the file becomes a message. */
async function reading(request: Request, keeps: boolean) {
  // Judged before it is read: a file of any size must not fill the memory.
  const length = Number(request.headers.get('content-length'));
  const large = tooLarge('The file', length - FORM_AROUND);
  if (large !== undefined) return fail(413, { message: large });
  const sent = {
    body: new Uint8Array(await request.arrayBuffer().catch(() => new ArrayBuffer(0))),
    type: request.headers.get('content-type') ?? '',
  };
  try {
    const { name, bytes } = fileWithin(sent.body);
    const isLong = length > LOOKED_THROUGH || isHeavy(estimated(name, bytes));
    const { signal, url } = request;
    return await work('brought', { ...sent, keeps }, { signal, path: pathOf(url), isLong });
  } catch (error) {
    if (error instanceof InputError || error instanceof WorkStopped)
      return fail(422, { message: error.message });
    throw error;
  }
}

/** Bytes that the form around a file takes at most. */
const FORM_AROUND = 64 * 1024;

export const actions: Actions = {
  /** What is in a file; nothing is kept. */
  look: async ({ request }) => {
    const read = await reading(request, false);
    return 'status' in read || 'preview' in read ? read : {};
  },
  keep: async ({ request }) => {
    const read = await reading(request, true);
    if (!('file' in read)) return read;
    const { file, found } = read;
    redirect(303, `/pieces/${once(db(), file.once, (tx) => keepPiece(tx, file, found))}`);
  },
};
