import { choicesIn, firstPages } from '$server/handout';
import { TODAY, todayAsked } from '$server/handoutAsked';
import { db } from '$server/db';
import { formOf } from '$server/forms';
import { keepPaper } from '$server/studio/paper';
import { fail } from '@sveltejs/kit';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ url, request }) => {
  const { today, sources, choices, about } = await todayAsked(request);
  const made = await firstPages(sources, choices, about, url);
  return { today, pages: made.pages, count: made.count, choices, learners: sources.length };
};

export const actions: Actions = {
  choose: async ({ request }) => {
    const choices = choicesIn(await formOf(request));
    if (!choices.success) return fail(422, { message: choices.error.issues[0]!.message });
    keepPaper(db(), TODAY, choices.data);
    return { message: '' };
  },
};
