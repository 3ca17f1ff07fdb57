import { db } from '$server/db';
import { formOf, readForm } from '$server/forms';
import { addLearner, learnerSchema } from '$server/studio/learners';
import { levelNames } from '$server/studio/levels';
import { fail, redirect } from '@sveltejs/kit';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = () => ({
  levels: levelNames(db()),
});

export const actions: Actions = {
  default: async ({ request }) => {
    const form = readForm(await formOf(request), learnerSchema);
    if (!form.ok) return fail(422, { problems: form.problems });
    redirect(303, `/learners/${addLearner(db(), form.data, new Date().toISOString().slice(0, 10))}`);
  },
};
