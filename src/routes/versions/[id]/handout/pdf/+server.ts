/** The handout of a version as a file: `?for=` one learner, `?zip` a file for each. */
import { paperDownload } from '$server/handout';
import { handoutAsked } from '$server/handoutAsked';
import { readable } from '$server/readable';
import type { RequestHandler } from './$types';

export const GET: RequestHandler = async ({ params, url, request }) => {
  const { piece, sources, choices, about } = await handoutAsked(params.id, url, request);
  const zip = url.searchParams.has('zip') ? { name: `${piece.title}, handouts` } : null;
  return readable(piece.id, () => paperDownload(sources, choices, about, zip));
};
