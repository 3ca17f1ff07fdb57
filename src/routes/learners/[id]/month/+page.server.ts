import { gone } from '$server/gone';
import { db } from '$server/db';
import { work } from '$server/pool';
import { todayIn } from '$server/studio/clock';
import { findLearner } from '$server/studio/learners';
import { monthAfter, monthBefore, monthReport } from '$server/studio/monthReport';
import { monthAsked } from '$server/monthAsked';
import { error } from '@sveltejs/kit';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ params, url }) => {
  const learner = findLearner(db(), params.id);
  if (!learner) error(404, gone('student'));
  const today = todayIn(db());
  const month = monthAsked(url, today);
  return {
    learner: { id: learner.id, name: learner.name },
    report: await monthReport(db(), work, learner, month),
    before: monthBefore(month),
    after: month < today.slice(0, 7) ? monthAfter(month) : null,
  };
};
