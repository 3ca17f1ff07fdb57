import { decisionText } from '$core/decisions/registry';
import { db } from '$server/db';
import { readForm } from '$server/forms';
import {
  documentOfVersion,
  duplicateVersion,
  editsOf,
  findVersion,
  goBackTo,
  nameRevision,
  realiseVersion,
} from '$server/studio/versions';
import { listed } from '$core/version/document';
import { placeText } from '$core/decisions/placeText';
import { error, fail, redirect } from '@sveltejs/kit';
import { z } from 'zod';
import type { Actions, PageServerLoad } from './$types';

/** Edits on one page. */
const MOST = 100;

export const load: PageServerLoad = ({ params, url }) => {
  const version = findVersion(db(), params.id);
  if (!version) error(404, 'There is no such version.');
  const before = z.coerce
    .number()
    .int()
    .min(1)
    .catch(version.edit + 1)
    .parse(url.searchParams.get('before') ?? undefined);
  const { parked, score, form } = realiseVersion(db(), version);
  const why = new Map(parked.map((p) => [p.decision, p.why]));
  return {
    version: { id: version.id, title: version.title, pieceId: version.pieceId, edit: version.edit },
    edits: editsOf(db(), version, MOST, before),
    most: MOST,
    decisions: listed(documentOfVersion(db(), version)).map((decision) => ({
      says: decisionText(decision),
      where: placeText(decision.at, { score, form }),
      parked: why.get(decision) ?? null,
    })),
  };
};

const placeSchema = z.object({ number: z.coerce.number().int().min(0) });
const nameSchema = placeSchema.extend({ name: z.string().trim().max(80, 'Keep the name under 80 letters.') });
const GONE = 'This version or its edit is no longer there.';

export const actions: Actions = {
  back: async ({ params, request }) => {
    const form = readForm(await request.formData(), placeSchema);
    if (!form.ok || !goBackTo(db(), params.id, form.data.number)) return fail(404, { message: GONE });
    redirect(303, `/versions/${params.id}`);
  },
  duplicate: async ({ params, request }) => {
    const version = findVersion(db(), params.id);
    const form = readForm(await request.formData(), placeSchema);
    if (!version || !form.ok || form.data.number > version.edit) return fail(404, { message: GONE });
    redirect(303, `/versions/${duplicateVersion(db(), version, form.data.number)}`);
  },
  name: async ({ params, request }) => {
    const version = findVersion(db(), params.id);
    const form = readForm(await request.formData(), nameSchema);
    if (!form.ok) return fail(422, { message: Object.values(form.problems).join(' ') });
    if (!version || form.data.number > version.edit) return fail(404, { message: GONE });
    nameRevision(db(), version.id, form.data.number, form.data.name);
    return { message: '' };
  },
};
