import { lineText } from '$core/plainText';
import { gone } from '$server/gone';
import { db } from '$server/db';
import { formOf, readForm } from '$server/forms';
import { windowOf } from '$server/guard/window';
import { once } from '$server/studio/once';
import { duplicateVersion, editsOf, findVersion, goBackTo, nameRevision } from '$server/studio/versions';
import { error, fail, redirect } from '@sveltejs/kit';
import { z } from 'zod';
import type { Actions, PageServerLoad } from './$types';

/** Edits on one page. */
const MOST = 100;

export const load: PageServerLoad = async ({ params, url }) => {
  const version = findVersion(db(), params.id);
  if (!version) error(404, gone('version'));
  const before = z.coerce
    .number()
    .int()
    .min(1)
    .catch(version.edit + 1)
    .parse(url.searchParams.get('before') ?? undefined);
  return {
    version: { id: version.id, title: version.title, pieceId: version.pieceId, edit: version.edit },
    edits: editsOf(db(), version, MOST, before),
    most: MOST,
  };
};

const placeSchema = z.object({ number: z.coerce.number().int().min(0) });
const nameSchema = placeSchema.extend({ name: lineText().max(80, 'Keep the name under 80 letters.') });
const GONE = gone('change');

export const actions: Actions = {
  back: async ({ params, request }) => {
    const form = readForm(await formOf(request), placeSchema);
    if (!form.ok || !goBackTo(db(), params.id, form.data.number, windowOf(request)))
      return fail(404, { message: GONE });
    redirect(303, `/versions/${params.id}`);
  },
  duplicate: async ({ params, request }) => {
    const version = findVersion(db(), params.id);
    const sent = await formOf(request);
    const form = readForm(sent, placeSchema);
    if (!version || !form.ok || form.data.number > version.edit) return fail(404, { message: GONE });
    const id = once(db(), sent.get('once'), (tx) => duplicateVersion(tx, version, form.data.number));
    redirect(303, `/versions/${id}`);
  },
  name: async ({ params, request }) => {
    const version = findVersion(db(), params.id);
    const form = readForm(await formOf(request), nameSchema);
    if (!form.ok) return fail(422, { message: Object.values(form.problems).join(' ') });
    if (!version || form.data.number > version.edit) return fail(404, { message: GONE });
    nameRevision(db(), version.id, form.data.number, form.data.name);
    return { message: '' };
  },
};
