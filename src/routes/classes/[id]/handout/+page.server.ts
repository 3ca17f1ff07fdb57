import { gone } from '$server/gone';
import { choicesIn, firstPages } from '$server/handout';
import { classAsked } from '$server/handoutAsked';
import { db } from '$server/db';
import { formOf } from '$server/forms';
import { readable } from '$server/readable';
import { findGroup } from '$server/studio/groups';
import { keepPaper } from '$server/studio/paper';
import { error, fail } from '@sveltejs/kit';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ params, url, request }) => {
  const { group, piece, sources, choices, about } = await classAsked(params.id, request);
  const made = await readable(piece.id, () => firstPages(sources, choices, about, url));
  return {
    id: group.id,
    name: group.name,
    title: piece.title,
    pages: made.pages,
    count: made.count,
    choices,
    learners: sources.length,
  };
};

export const actions: Actions = {
  choose: async ({ params, request }) => {
    if (!findGroup(db(), params.id)) error(404, gone('class'));
    const choices = choicesIn(await formOf(request));
    if (!choices.success) return fail(422, { message: choices.error.issues[0]!.message });
    keepPaper(db(), params.id, choices.data);
    return { message: '' };
  },
};
