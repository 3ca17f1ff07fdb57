import { db } from '$server/db';
import { roomAt } from '$server/guard/room';
import { monthAsked } from '$server/monthAsked';
import { work } from '$server/pool';
import { todayIn } from '$server/studio/clock';
import { latestLessons } from '$server/studio/lessons';
import { monthAfter, monthBefore, monthReport } from '$server/studio/monthReport';
import { redirect } from '@sveltejs/kit';
import type { PageServerLoad } from './$types';

/** A student's month, for whoever looks after them: the same that the teacher sees. */
export const load: PageServerLoad = async ({ params, cookies, url }) => {
  const { found, isOpen } = roomAt(params.token, cookies);
  if (!isOpen) redirect(303, `/room/${params.token}`);
  const { learner } = found;
  const today = todayIn(db());
  const latest = latestLessons(db(), [learner.id], 1, `${today}~`).get(learner.id)?.[0]?.date ?? today;
  const month = monthAsked(url, latest);
  return {
    token: params.token,
    name: learner.name,
    report: await monthReport(db(), work, learner, month),
    before: monthBefore(month),
    after: month < today.slice(0, 7) ? monthAfter(month) : null,
  };
};
