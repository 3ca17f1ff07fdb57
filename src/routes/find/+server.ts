import { db } from '$server/db';
import { listGroups } from '$server/studio/groups';
import { learnerNames } from '$server/studio/learners';
import { listPieces } from '$server/studio/pieces';
import { versionsByPiece } from '$server/studio/versions';
import { versionName } from '$ui/piece/versionName';
import { json } from '@sveltejs/kit';
import type { RequestHandler } from './$types';

/** Everything of the studio that has a name, for the search. */
export const GET: RequestHandler = () => {
  const versions = versionsByPiece(db());
  return json({
    students: learnerNames(db()),
    classes: listGroups(db()).map(({ id, name }) => ({ id, name })),
    pieces: listPieces(db()).map(({ id, title, composer }) => ({ id, title, composer })),
    versions: [...versions.values()].flat().map((v) => ({ id: v.id, name: `${v.title}: ${versionName(v)}` })),
  });
};
