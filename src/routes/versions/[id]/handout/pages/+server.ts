/** Further pages of a handout, `?from=` and `?to=`, as the page asks for them. */
import { pagesOf } from '$server/handout';
import { handoutAsked } from '$server/handoutAsked';
import { readable } from '$server/readable';
import { json } from '@sveltejs/kit';
import type { RequestHandler } from './$types';

export const GET: RequestHandler = async ({ params, url, request }) => {
  const { piece, sources, choices, about } = await handoutAsked(params.id, url, request);
  return json(await readable(piece.id, () => pagesOf(sources, choices, about, url)));
};
