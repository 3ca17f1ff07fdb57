import { gone } from '$server/gone';
import { db } from '$server/db';
import { about, work } from '$server/pool';
import { findPiece } from '$server/studio/pieces';
import { error } from '@sveltejs/kit';
import type { RequestHandler } from './$types';

/** The score of a piece as it is worked with. Under a name for its content (`of`) it never changes, and is kept by the browser. */
export const GET: RequestHandler = async ({ params, url, request }) => {
  if (!findPiece(db(), params.id)) error(404, gone('piece'));
  const { key, json } = await work('score', params.id, about(params.id, request));
  const isNamed = url.searchParams.get('of') === key;
  return new Response(json, {
    headers: {
      'content-type': 'application/json',
      'cache-control': isNamed ? 'private, max-age=31536000, immutable' : 'no-cache',
    },
  });
};
