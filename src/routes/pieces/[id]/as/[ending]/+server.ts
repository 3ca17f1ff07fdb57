import { gone } from '$server/gone';
import { db } from '$server/db';
import { downloadMusic } from '$server/download';
import { about } from '$server/pool';
import { findPiece } from '$server/studio/pieces';
import { error } from '@sveltejs/kit';
import type { RequestHandler } from './$types';

/** The piece as it was read, all its parts, in another format. */
export const GET: RequestHandler = ({ params, request }) => {
  const piece = findPiece(db(), params.id);
  if (!piece) error(404, gone('piece'));
  const { id, title, composer } = piece;
  return downloadMusic({ pieceId: id, title, composer }, title, params.ending, about(id, request));
};
