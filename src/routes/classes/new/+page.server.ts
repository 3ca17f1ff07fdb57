import { db } from '$server/db';
import { formOf } from '$server/forms';
import { gone } from '$server/gone';
import { addGroup, groupSchema, missingIn } from '$server/studio/groups';
import { learnerNames } from '$server/studio/learners';
import { once } from '$server/studio/once';
import { listPieces } from '$server/studio/pieces';
import { fail, redirect } from '@sveltejs/kit';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = () => ({
  learners: learnerNames(db()),
  pieces: listPieces(db()).map(({ id, title }) => ({ id, title })),
});

export const actions: Actions = {
  default: async ({ request }) => {
    const sent = await formOf(request);
    const form = groupSchema.safeParse({ ...Object.fromEntries(sent), members: sent.getAll('members') });
    if (!form.success) return fail(422, { message: form.error.issues[0]!.message });
    const missing = missingIn(db(), form.data);
    if (missing) return fail(404, { message: gone(missing) });
    const { name, piece, members } = form.data;
    redirect(303, `/classes/${once(db(), sent.get('once'), (tx) => addGroup(tx, name, piece, members))}`);
  },
};
