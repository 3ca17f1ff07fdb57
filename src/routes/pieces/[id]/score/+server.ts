import { db } from '$server/db';
import { findPiece, scoreOf } from '$server/studio/pieces';
import { error, json } from '@sveltejs/kit';
import type { RequestHandler } from './$types';

/** The score of a piece as it is worked with, for a page that analyses it by itself. */
export const GET: RequestHandler = ({ params }) => {
  if (!findPiece(db(), params.id)) error(404, 'There is no such piece.');
  return json(scoreOf(db(), params.id).score);
};
