import { gone } from '$server/gone';
import { db } from '$server/db';
import { holdersOf } from '$server/studio/assignments';
import { findLearner, voiceOf } from '$server/studio/learners';
import { studioLevels } from '$server/studio/levels';
import { about, work } from '$server/pool';
import { preparedKey } from '$server/studio/prepared';
import { pieceFacts } from '$server/studio/summaries';
import { findVersion, savedState } from '$server/studio/versions';
import { readable } from '$server/readable';
import { error } from '@sveltejs/kit';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ params, request }) => {
  const row = findVersion(db(), params.id);
  if (!row) error(404, gone('version'));
  const { key } = await readable(row.pieceId, () => pieceFacts(db(), work, row.pieceId));
  const levels = studioLevels(db());
  const saved = await readable(row.pieceId, () => savedState(db(), row.id)!);
  const holders = holdersOf(db(), row.id).flatMap(({ learnerId }) => {
    const learner = findLearner(db(), learnerId);
    return learner ? [{ name: learner.name, voice: voiceOf(learner) }] : [];
  });
  return {
    version: { id: row.id, title: row.title },
    saved,
    score: `/pieces/${row.pieceId}/score?of=${preparedKey(db(), row.pieceId)}`,
    levels,
    mode: key.mode,
    current: await readable(row.pieceId, () =>
      work('versionKey', { pieceId: row.pieceId, document: saved.document }, about(row.pieceId, request)),
    ),
    singer: holders.find((h) => h.voice) ?? null,
  };
};
