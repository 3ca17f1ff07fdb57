import { gone } from '$server/gone';
import { db } from '$server/db';
import { download } from '$server/download';
import { monthAsked } from '$server/monthAsked';
import { work } from '$server/pool';
import { todayIn } from '$server/studio/clock';
import { findLearner } from '$server/studio/learners';
import { monthReport, monthText } from '$server/studio/monthReport';
import { monthTitle } from '$ui/text';
import { error } from '@sveltejs/kit';
import type { RequestHandler } from './$types';

/** The month as a text file, to be sent. */
export const GET: RequestHandler = async ({ params, url }) => {
  const learner = findLearner(db(), params.id);
  if (!learner) error(404, gone('student'));
  const month = monthAsked(url, todayIn(db()));
  const text = monthText(learner.name, monthTitle(month), await monthReport(db(), work, learner, month));
  return download(`${learner.name} ${month}.txt`, 'text/plain; charset=utf-8', text);
};
