/** Further pages of today's sets, `?from=` and `?to=`. */
import { pagesOf } from '$server/handout';
import { todayAsked } from '$server/handoutAsked';
import { json } from '@sveltejs/kit';
import type { RequestHandler } from './$types';

export const GET: RequestHandler = async ({ url, request }) => {
  const { sources, choices, about } = await todayAsked(request);
  return json(await pagesOf(sources, choices, about, url));
};
