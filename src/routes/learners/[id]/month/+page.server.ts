import { gone } from '$server/gone';
import { db } from '$server/db';
import { work } from '$server/pool';
import { todayIn } from '$server/studio/clock';
import { latestLessons } from '$server/studio/lessons';
import { findLearner } from '$server/studio/learners';
import { monthAfter, monthBefore, monthReport } from '$server/studio/monthReport';
import { monthAsked } from '$server/monthAsked';
import { error } from '@sveltejs/kit';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ params, url }) => {
  const learner = findLearner(db(), params.id);
  if (!learner) error(404, gone('student'));
  const today = todayIn(db());
  // A month without lessons is no beginning: without one that is asked for the last that had some.
  const latest = latestLessons(db(), [learner.id], 1, `${today}~`).get(learner.id)?.[0]?.date ?? today;
  const month = monthAsked(url, latest);
  return {
    learner: { id: learner.id, name: learner.name },
    report: await monthReport(db(), work, learner, month),
    before: monthBefore(month),
    after: month < today.slice(0, 7) ? monthAfter(month) : null,
  };
};
