import { gone } from '$server/gone';
import { db } from '$server/db';
import { download } from '$server/download';
import { findPiece } from '$server/studio/pieces';
import { about, work } from '$server/pool';
import { error } from '@sveltejs/kit';
import type { RequestHandler } from './$types';

/** The chart in all twelve keys as one file, as songs follow each other in a book. */
export const GET: RequestHandler = async ({ params, request }) => {
  const piece = findPiece(db(), params.id);
  if (!piece) error(404, gone('piece'));
  const songbook = await work('songbook', piece.id, about(piece.id, request));
  return download(`${piece.title}, all keys.pro`, 'text/plain', songbook);
};
