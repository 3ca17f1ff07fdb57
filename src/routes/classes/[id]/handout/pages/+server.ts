/** Further pages of a class's set, `?from=` and `?to=`. */
import { pagesOf } from '$server/handout';
import { classAsked } from '$server/handoutAsked';
import { readable } from '$server/readable';
import { json } from '@sveltejs/kit';
import type { RequestHandler } from './$types';

export const GET: RequestHandler = async ({ params, url, request }) => {
  const { piece, sources, choices, about } = await classAsked(params.id, request);
  return json(await readable(piece.id, () => pagesOf(sources, choices, about, url)));
};
