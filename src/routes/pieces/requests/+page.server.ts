import { db } from '$server/db';
import { formOf, readForm } from '$server/forms';
import { gone } from '$server/gone';
import { todayIn } from '$server/studio/clock';
import { learnerNames } from '$server/studio/learners';
import { once } from '$server/studio/once';
import { listPieces } from '$server/studio/pieces';
import { addRequest, becomePiece, closeRequest, listRequests, requestSchema } from '$server/studio/requests';
import { fail } from '@sveltejs/kit';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = () => ({
  requests: listRequests(db()),
  learners: learnerNames(db()),
  pieces: listPieces(db()).map(({ id, title }) => ({ id, title })),
});

export const actions: Actions = {
  add: async ({ request }) => {
    const sent = await formOf(request);
    const form = readForm(sent, requestSchema);
    if (!form.ok) return fail(422, { message: Object.values(form.problems).join(' '), values: form.values });
    once(db(), sent.get('once'), (tx) => addRequest(tx, form.data, todayIn(tx)));
    return { said: `“${form.data.title}” is on the list.` };
  },
  piece: async ({ request }) => {
    const sent = await formOf(request);
    const piece = String(sent.get('piece') ?? '');
    return becomePiece(db(), String(sent.get('id')), piece === '' ? null : piece)
      ? {}
      : fail(404, { message: gone('request') });
  },
  close: async ({ request }) =>
    closeRequest(db(), String((await formOf(request)).get('id')), true)
      ? { said: 'The request is put aside.' }
      : fail(404, { message: gone('request') }),
};
