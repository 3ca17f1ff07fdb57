import { keyOf } from '$core/analysis/key';
import { keyCode } from '$core/theory/key';
import { versionKey } from '$core/version/arrangement';
import { db } from '$server/db';
import { holdersOf } from '$server/studio/assignments';
import { findLearner, voiceOf } from '$server/studio/learners';
import { studioLevels } from '$server/studio/levels';
import { preparedPiece } from '$server/studio/prepared';
import { findVersion, savedState } from '$server/studio/versions';
import { error } from '@sveltejs/kit';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = ({ params }) => {
  const row = findVersion(db(), params.id);
  if (!row) error(404, 'There is no such version.');
  const { score, key } = preparedPiece(db(), row.pieceId);
  const levels = studioLevels(db());
  const saved = savedState(db(), row.id)!;
  const holders = holdersOf(db(), row.id).flatMap(({ learnerId }) => {
    const learner = findLearner(db(), learnerId);
    return learner ? [{ name: learner.name, voice: voiceOf(learner) }] : [];
  });
  return {
    version: { id: row.id, title: row.title },
    saved,
    score: `/pieces/${row.pieceId}/score?of=${key}`,
    levels,
    mode: keyOf(score).mode,
    current: keyCode(versionKey(score, saved.document.recipe, levels)),
    singer: holders.find((h) => h.voice) ?? null,
  };
};
