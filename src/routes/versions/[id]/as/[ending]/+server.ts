import { gone } from '$server/gone';
import { levelText } from '$core/arrange/levels';
import { db } from '$server/db';
import { downloadMusic } from '$server/download';
import { about } from '$server/pool';
import { documentOfVersion, findVersion } from '$server/studio/versions';
import { error } from '@sveltejs/kit';
import type { RequestHandler } from './$types';

/** A version with its fingers, counts and pedal, in any format. */
export const GET: RequestHandler = ({ params, request }) => {
  const version = findVersion(db(), params.id);
  if (!version) error(404, gone('version'));
  const { pieceId, title, level } = version;
  return downloadMusic(
    { pieceId, document: documentOfVersion(db(), version), title, composer: '' },
    `${title}, level ${levelText(level)}`,
    params.ending,
    about(pieceId, request),
  );
};
