import { gone } from '$server/gone';
import { choicesIn, firstPages } from '$server/handout';
import { handoutAsked } from '$server/handoutAsked';
import { db } from '$server/db';
import { formOf } from '$server/forms';
import { readable } from '$server/readable';
import { keepPaper } from '$server/studio/paper';
import { findVersion } from '$server/studio/versions';
import { error, fail } from '@sveltejs/kit';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ params, url, request }) => {
  const { row, piece, holders, chosen, sources, choices, edit, about } = await handoutAsked(
    params.id,
    url,
    request,
  );
  const made = await readable(piece.id, () => firstPages(sources, choices, about, url));
  return {
    id: row.id,
    title: piece.title,
    pages: made.pages,
    count: made.count,
    choices,
    holders,
    chosen,
    /** The state that is shown, where it is not the newest. */
    earlier: edit === row.edit ? null : edit,
  };
};

export const actions: Actions = {
  choose: async ({ params, request }) => {
    if (!findVersion(db(), params.id)) error(404, gone('version'));
    const choices = choicesIn(await formOf(request));
    if (!choices.success) return fail(422, { message: choices.error.issues[0]!.message });
    keepPaper(db(), params.id, choices.data);
    return { message: '' };
  },
};
