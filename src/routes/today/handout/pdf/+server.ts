/** Today's sets as one file, or with `?zip` as one for each student. */
import { paperDownload } from '$server/handout';
import { todayAsked } from '$server/handoutAsked';
import { error } from '@sveltejs/kit';
import type { RequestHandler } from './$types';

export const GET: RequestHandler = async ({ url, request }) => {
  const { today, sources, choices, about } = await todayAsked(request);
  if (sources.length === 0) error(404, 'Nobody with a lesson today has a piece yet.');
  return paperDownload(
    sources,
    choices,
    about,
    url.searchParams.has('zip') ? { name: `Lessons ${today}` } : null,
  );
};
