import { keyOf } from '$core/analysis/key';
import { keyCode } from '$core/theory/key';
import { versionKey } from '$core/version/realise';
import { db } from '$server/db';
import { holdersOf } from '$server/studio/assignments';
import { findLearner, voiceOf } from '$server/studio/learners';
import { studioLevels } from '$server/studio/levels';
import { scoreOf } from '$server/studio/pieces';
import { findVersion } from '$server/studio/versions';
import { error } from '@sveltejs/kit';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = ({ params }) => {
  const version = findVersion(db(), params.id);
  if (!version) error(404, 'There is no such version.');
  const source = scoreOf(db(), version.pieceId).score;
  const levels = studioLevels(db());
  const holders = holdersOf(db(), version.id).flatMap(({ learnerId }) => {
    const learner = findLearner(db(), learnerId);
    return learner ? [{ name: learner.name, voice: voiceOf(learner) }] : [];
  });
  return {
    version,
    source,
    levels,
    mode: keyOf(source).mode,
    current: keyCode(versionKey(source, version.recipe, levels)),
    singer: holders.find((h) => h.voice) ?? null,
  };
};
