import { download } from '$server/download';
import { gone } from '$server/gone';
import { pathOf, work } from '$server/pool';
import { error } from '@sveltejs/kit';
import type { RequestHandler } from './$types';

/** The lessons of the studio, or with ?of= those of a student or a class, for a calendar program. */
export const GET: RequestHandler = async ({ url, request }) => {
  const asked = { isPaper: true, signal: request.signal, path: pathOf(request.url) };
  const text = await work('calendar', url.searchParams.get('of'), asked);
  if (text === null) error(404, gone('student'));
  return download('lessons.ics', 'text/calendar; charset=utf-8', text);
};
