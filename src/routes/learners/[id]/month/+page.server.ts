import { gone } from '$server/gone';
import { db } from '$server/db';
import { work } from '$server/pool';
import { findLearner } from '$server/studio/learners';
import { monthPage } from '$server/studio/monthReport';
import { error } from '@sveltejs/kit';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ params, url }) => {
  const learner = findLearner(db(), params.id);
  if (!learner) error(404, gone('student'));
  return {
    learner: { id: learner.id, name: learner.name },
    ...(await monthPage(db(), work, learner, url)),
  };
};
