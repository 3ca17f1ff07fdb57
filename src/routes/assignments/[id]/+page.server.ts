import { STEP_IDS } from '$core/lessons/steps';
import { db } from '$server/db';
import { formOf, readForm } from '$server/forms';
import { findAssignment, recordStep } from '$server/studio/assignments';
import { giveNow } from '$server/studio/giving';
import { findLearner } from '$server/studio/learners';
import { work } from '$server/pool';
import { deriveLine, findProgress } from '$server/studio/progress';
import { findVersion } from '$server/studio/versions';
import { toQuarters } from '$ui/text';
import { error, fail } from '@sveltejs/kit';
import { z } from 'zod';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ params }) => {
  const found = await findProgress(db(), work, params.id);
  if (!found) error(404, 'There is no such assignment.');
  const learner = findLearner(db(), found.assignment.learnerId)!;
  return { progress: found.progress, learner: { id: learner.id, name: learner.name } };
};

const stepSchema = z.object({
  chunk: z.string().max(40),
  step: z.enum(STEP_IDS),
  /** In beats of the piece's metre, as it is shown. */
  tempo: z.preprocess(
    (v) => (v === '' || v === undefined ? null : v),
    z.coerce
      .number('Write the tempo as a number.')
      .int('Write the tempo as a whole number.')
      .min(20, 'A tempo is at least 20.')
      .max(300, 'A tempo is at most 300.')
      .nullable(),
  ),
});

/** Records a step of the assignment, reached or taken back. */
async function record(id: string, request: Request, undone: boolean) {
  const assignment = findAssignment(db(), id);
  const found = assignment && (await findProgress(db(), work, id));
  if (!found) return fail(404, { message: 'This assignment is no longer there.' });
  const form = readForm(await formOf(request), stepSchema);
  if (!form.ok) return fail(422, { message: Object.values(form.problems).join(' ') });
  const { chunk, step, tempo } = form.data;
  const known = found.progress.chunks.find((c) => c.id === chunk)?.steps.some((s) => s.id === step);
  if (!known) return fail(422, { message: 'This step is not part of the piece any more.' });
  recordStep(db(), id, {
    chunk,
    step,
    tempo: tempo === null || undone ? null : toQuarters(found.progress.time, tempo),
    undone,
  });
  await deriveLine(db(), work, id);
  return { message: '' };
}

export const actions: Actions = {
  tick: ({ params, request }) => record(params.id, request, false),
  untick: ({ params, request }) => record(params.id, request, true),
  /** Gives the newest state of the version in place of the one that the learner has. */
  renew: async ({ params }) => {
    const assignment = findAssignment(db(), params.id);
    const version = assignment && findVersion(db(), assignment.versionId);
    if (!assignment || !version) return fail(404, { message: 'This assignment is no longer there.' });
    await giveNow(db(), work, version, assignment.learnerId);
    return { message: '' };
  },
};
