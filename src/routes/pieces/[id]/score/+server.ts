import { db } from '$server/db';
import { findPiece } from '$server/studio/pieces';
import { preparedPiece } from '$server/studio/prepared';
import { error, json } from '@sveltejs/kit';
import type { RequestHandler } from './$types';

/** The score of a piece as it is worked with. Under a name for its content (`of`) it never changes, and is kept by the browser. */
export const GET: RequestHandler = ({ params, url }) => {
  if (!findPiece(db(), params.id)) error(404, 'There is no such piece.');
  const { key, score } = preparedPiece(db(), params.id);
  const isNamed = url.searchParams.get('of') === key;
  return json(score, {
    headers: { 'cache-control': isNamed ? 'private, max-age=31536000, immutable' : 'no-cache' },
  });
};
