import { db } from '$server/db';
import { todayIn } from '$server/studio/clock';
import { formOf, readForm } from '$server/forms';
import { addLearner, learnerSchema } from '$server/studio/learners';
import { once } from '$server/studio/once';
import { levelNames } from '$server/studio/levels';
import { fail, redirect } from '@sveltejs/kit';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = () => ({
  levels: levelNames(db()),
});

export const actions: Actions = {
  default: async ({ request }) => {
    const sent = await formOf(request);
    const form = readForm(sent, learnerSchema);
    if (!form.ok) return fail(422, { problems: form.problems });
    const id = once(db(), sent.get('once'), (tx) => addLearner(tx, form.data, todayIn(db())));
    redirect(303, `/learners/${id}`);
  },
};
