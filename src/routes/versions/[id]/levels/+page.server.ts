import { db } from '$server/db';
import { studioLevels } from '$server/studio/levels';
import { scoreOf } from '$server/studio/pieces';
import { addVersion, findVersion, listVersions } from '$server/studio/versions';
import { error, fail, redirect } from '@sveltejs/kit';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = ({ params }) => {
  const version = findVersion(db(), params.id);
  if (!version) error(404, 'There is no such version.');
  return {
    version,
    source: scoreOf(db(), version.pieceId).score,
    levels: studioLevels(db()),
    /** Levels at which the piece has a version already. */
    made: [...new Set(listVersions(db(), version.pieceId).map((v) => v.recipe.level))],
  };
};

export const actions: Actions = {
  /** Makes a version of each chosen level, with this version's other settings and decisions: a set for a class. */
  set: async ({ params, request }) => {
    const version = findVersion(db(), params.id);
    if (!version) return fail(404, { message: 'This version is no longer there.' });
    const known = studioLevels(db()).map((l) => l.level);
    const levels = (await request.formData())
      .getAll('level')
      .map(Number)
      .filter((level) => known.includes(level));
    if (levels.length === 0) return fail(400, { message: 'Choose at least one level.' });
    for (const level of levels)
      addVersion(db(), version.pieceId, { ...version.recipe, level }, version.decisions);
    redirect(303, `/pieces/${version.pieceId}#versions`);
  },
};
