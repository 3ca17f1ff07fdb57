import { WRITTEN_FORMATS } from '$core/io/writeScoreFile';
import { db } from '$server/db';
import { giveVersion, holdersOf } from '$server/studio/assignments';
import { findLearner, listLearners } from '$server/studio/learners';
import { studioLevels } from '$server/studio/levels';
import { scoreOf } from '$server/studio/pieces';
import { findVersion, realiseVersion } from '$server/studio/versions';
import { error, fail } from '@sveltejs/kit';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = ({ params }) => {
  const version = findVersion(db(), params.id);
  if (!version) error(404, 'There is no such version.');
  const holders = holdersOf(db(), version.id);
  return {
    version,
    source: scoreOf(db(), version.pieceId).score,
    levels: studioLevels(db()),
    holders,
    formats: WRITTEN_FORMATS.map(({ ending, name }) => ({ ending, name })),
    learners: listLearners(db()).map(({ id, name, level }) => ({
      id,
      name,
      level,
      has: holders.some((h) => h.learnerId === id),
    })),
  };
};

export const actions: Actions = {
  give: async ({ params, request }) => {
    const version = findVersion(db(), params.id);
    const learner = findLearner(db(), String((await request.formData()).get('learner')));
    if (!version || !learner) return fail(404, { message: 'This version or learner is no longer there.' });
    giveVersion(db(), version.id, learner.id, realiseVersion(db(), version).goalTempo);
    return { given: learner.name };
  },
};
