import { db } from '$server/db';
import { downloadScore } from '$server/download';
import { findPiece } from '$server/studio/pieces';
import { sourceScore } from '$server/studio/prepared';
import { error } from '@sveltejs/kit';
import type { RequestHandler } from './$types';

/** The piece as it was read, all its parts, in another format. */
export const GET: RequestHandler = ({ params }) => {
  const piece = findPiece(db(), params.id);
  if (!piece) error(404, 'There is no such piece.');
  const score = { ...sourceScore(db(), piece.id).score, title: piece.title, composer: piece.composer };
  return downloadScore(score, piece.title, params.ending);
};
