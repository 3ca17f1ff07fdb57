import { gone } from '$server/gone';
import { db } from '$server/db';
import { about, work } from '$server/pool';
import { readable } from '$server/readable';
import { documentOfVersion, findVersion } from '$server/studio/versions';
import { error, json } from '@sveltejs/kit';
import type { RequestHandler } from './$types';

/** The whole version note by note, as it is read out. */
export const GET: RequestHandler = async ({ params, request }) => {
  const row = findVersion(db(), params.id);
  if (!row) error(404, gone('version'));
  const reading = await readable(row.pieceId, () =>
    work(
      'reading',
      { pieceId: row.pieceId, document: documentOfVersion(db(), row) },
      about(row.pieceId, request),
    ),
  );
  return json(reading);
};
