import { formOf } from '$core/analysis/form';
import { keyOf } from '$core/analysis/key';
import { InputError } from '$core/io/inputError';
import { MOST_BYTES } from '$core/io/readScoreFile';
import { keyName } from '$core/theory/key';
import { db } from '$server/db';
import { addPiece, listPieces, RIGHTS, scoreOf } from '$server/studio/pieces';
import { listVersions } from '$server/studio/versions';
import { fail, redirect } from '@sveltejs/kit';
import { z } from 'zod';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = () => ({
  pieces: listPieces(db()).map((piece) => {
    const { score } = scoreOf(db(), piece.id);
    const form = formOf(score);
    return {
      ...piece,
      key: keyName(keyOf(score)),
      time: score.measures[0]!.time,
      measures: form.measureCount,
      newMeasures: form.newMeasures,
      versions: listVersions(db(), piece.id).map(({ id, recipe }) => ({
        id,
        level: recipe.level,
        key: recipe.key,
      })),
    };
  }),
  rights: RIGHTS,
});

/** The form around the file takes a little room as well. */
const MOST_FORM = MOST_BYTES + 64 * 1024;

export const actions: Actions = {
  upload: async ({ request }) => {
    // Judged before it is read: a file of any size must not fill the memory.
    const length = Number(request.headers.get('content-length'));
    if (length > MOST_FORM)
      return fail(413, {
        message: `The file has ${Math.round(length / 1024 / 1024)} MB; a score of up to ${MOST_BYTES / 1024 / 1024} MB can be read.`,
      });
    const data = await request.formData().catch(() => undefined);
    const file = data?.get('file');
    if (!(file instanceof File) || file.name === '')
      return fail(400, { message: 'No file arrived. Choose a MusicXML file and try again.' });
    const rights = z.enum(RIGHTS).catch('not known').parse(data?.get('rights'));
    let added;
    try {
      added = addPiece(db(), { name: file.name, bytes: new Uint8Array(await file.arrayBuffer()), rights });
    } catch (error) {
      if (error instanceof InputError) return fail(422, { message: error.message });
      throw error;
    }
    redirect(303, `/pieces/${added.id}`);
  },
};
