import { gone } from '$server/gone';
import { editing } from '$core/edits/edit';
import { db } from '$server/db';
import { formOf, readForm } from '$server/forms';
import { windowOf } from '$server/guard/window';
import { about, work } from '$server/pool';
import { readable } from '$server/readable';
import { decidedBy, documentOfVersion, findVersion, saveEdit } from '$server/studio/versions';
import { canMend } from '$core/version/mend';
import { mendSource } from '$server/studio/pieces';
import { sourceScore } from '$server/studio/prepared';
import { error, fail } from '@sveltejs/kit';
import { z } from 'zod';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ params, request }) => {
  const version = findVersion(db(), params.id);
  if (!version) error(404, gone('version'));
  const placed = await readable(version.pieceId, () =>
    work(
      'decisions',
      { pieceId: version.pieceId, document: documentOfVersion(db(), version) },
      about(version.pieceId, request),
    ),
  );
  const by = decidedBy(db(), version.id);
  return {
    version: { id: version.id, title: version.title },
    decisions: placed.map((decision) => ({ ...decision, by: by.get(decision.subject) ?? null })),
  };
};

const subjectSchema = z.object({ subject: z.string().min(1).max(200) });

export const actions: Actions = {
  /** Gives one decision back, wherever its note or measure is now. */
  giveBack: async ({ params, request }) => {
    const version = findVersion(db(), params.id);
    const form = readForm(await formOf(request), subjectSchema);
    if (!version || !form.ok) return fail(404, { message: gone('choice') });
    const { patches } = editing(documentOfVersion(db(), version), (draft) => {
      delete draft.decisions[form.data.subject];
    });
    if (patches.length > 0)
      saveEdit(db(), version.id, { patches, basedOn: version.edit, window: windowOf(request) });
    return { message: '' };
  },
  /** A decision becomes a correction of the source: it holds in every version, and is no decision of this one any more. */
  mend: async ({ params, request }) => {
    const version = findVersion(db(), params.id);
    const form = readForm(await formOf(request), subjectSchema);
    if (!version || !form.ok) return fail(404, { message: gone('choice') });
    const document = documentOfVersion(db(), version);
    const decision = document.decisions[form.data.subject];
    if (!decision || !canMend(decision, sourceScore(db(), version.pieceId).score))
      return fail(409, { message: 'This can’t be corrected in the source.' });
    const { patches } = editing(document, (draft) => {
      delete draft.decisions[form.data.subject];
    });
    db().transaction((tx) => {
      saveEdit(tx, version.id, { patches, basedOn: version.edit, window: windowOf(request) });
      mendSource(tx, version.pieceId, decision);
    });
    return { message: '' };
  },
};
