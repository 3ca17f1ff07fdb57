/** The set of a class as one file, or with `?zip` as one for each learner. */
import { paperDownload } from '$server/handout';
import { classAsked } from '$server/handoutAsked';
import { readable } from '$server/readable';
import { error } from '@sveltejs/kit';
import type { RequestHandler } from './$types';

export const GET: RequestHandler = async ({ params, url, request }) => {
  const { group, piece, sources, choices, about } = await classAsked(params.id, request);
  if (sources.length === 0) error(404, 'Nobody in this class has a part yet.');
  const zip = url.searchParams.has('zip') ? { name: `${group.name}, ${piece.title}` } : null;
  return readable(piece.id, () => paperDownload(sources, choices, about, zip));
};
