import { writeChordPro } from '$core/io/chart/write';
import { inAllKeys } from '$core/transpose/allKeys';
import { db } from '$server/db';
import { download } from '$server/download';
import { findPiece } from '$server/studio/pieces';
import { preparedPiece } from '$server/studio/prepared';
import { error } from '@sveltejs/kit';
import type { RequestHandler } from './$types';

/** The chart in all twelve keys as one file, as songs follow each other in a book. */
export const GET: RequestHandler = ({ params }) => {
  const piece = findPiece(db(), params.id);
  if (!piece) error(404, 'There is no such piece.');
  const songs = inAllKeys({ ...preparedPiece(db(), piece.id).score, title: piece.title }).map(({ score }) =>
    writeChordPro(score),
  );
  return download(`${piece.title}, all keys.pro`, 'text/plain', songs.join('{new_song}\n'));
};
