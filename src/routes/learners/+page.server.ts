import { db } from '$server/db';
import { listLearners } from '$server/studio/learners';
import { piecesOfLearner } from '$server/studio/progress';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = () => ({
  learners: listLearners(db()).map((learner) => ({ ...learner, pieces: piecesOfLearner(db(), learner.id) })),
});
