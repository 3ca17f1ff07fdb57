import { chunkSchema } from '$core/lessons/chunkId';
import { stepIdSchema } from '$core/lessons/record';
import { plainLine } from '$core/plainText';
import { PRACTICE_DAYS } from '$core/lessons/estimate';
import { planSchema, templateOf, type Plan } from '$core/lessons/plan';
import { planEditSchema } from '$core/lessons/planEdits';
import { db } from '$server/db';
import { formOf, readForm } from '$server/forms';
import { gone } from '$server/gone';
import { meanwhile, wasIn } from '$server/meanwhile';
import { changeGoal, findAssignment, pauseAssignment } from '$server/studio/assignments';
import { todayIn } from '$server/studio/clock';
import { lastOfStep, recordEvent, withdrawEvent } from '$server/studio/events';
import { giveNow } from '$server/studio/giving';
import { findLearner } from '$server/studio/learners';
import { estimates, paceFrom } from '$server/studio/pace';
import { once } from '$server/studio/once';
import {
  editPlan,
  keepTemplate,
  removeTemplate,
  templates,
  undoPlanEdit,
  type PlanResult,
} from '$server/studio/plans';
import { work } from '$server/pool';
import { deriveLine, findProgress, historiesOf, piecesOfLearner } from '$server/studio/progress';
import { versionSummaryOf } from '$server/studio/summaries';
import { findVersion } from '$server/studio/versions';
import { tempoText, toBeats, toQuarters } from '$ui/text';
import { error, fail } from '@sveltejs/kit';
import { z } from 'zod';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ params }) => {
  const found = await findProgress(db(), work, params.id);
  if (!found) error(404, gone('practice plan'));
  const learner = findLearner(db(), found.assignment.learnerId)!;
  const today = todayIn(db());
  const lines = await piecesOfLearner(db(), work, learner.id);
  const pace = paceFrom(
    historiesOf(
      db(),
      lines.map((l) => l.id),
    ).values(),
    learner.minutesADay,
    today,
  );
  const { events: _events, ids, ...progress } = found.progress;
  return {
    progress: { ...progress, ids },
    learner: { id: learner.id, name: learner.name, minutesADay: learner.minutesADay },
    days: PRACTICE_DAYS,
    pace,
    estimate: estimates(lines, pace, learner.minutesADay, today).get(params.id) ?? null,
    templates: templates(db()).map(({ id, name, method, steps }) => ({ id, name, method, steps })),
  };
};

const emptyAsNull = (v: unknown): unknown => (v === '' || v === undefined ? null : v);
/** In beats of the piece's metre, as it is shown. */
const tempo = z.preprocess(
  emptyAsNull,
  z.coerce
    .number('Write the tempo as a number.')
    .int('Write the tempo as a whole number.')
    .min(5, 'A tempo is at least 5.')
    .max(300, 'A tempo is at most 300.')
    .nullable(),
);
const stepSchema = z.object({ chunk: chunkSchema, step: stepIdSchema, tempo });

/** What a goal was, as it is stored. */
const wasGoalSchema = z.object({ goalTempo: z.number(), goalDate: z.iso.date().nullable() });

const goalSchema = z.object({
  goalTempo: z.coerce
    .number('Write the tempo as a number.')
    .int('Write the tempo as a whole number.')
    .min(5, 'A goal is at least 5.')
    .max(300, 'A goal is at most 300.'),
  goalDate: z.preprocess(emptyAsNull, z.iso.date('Choose a day.').nullable()),
});

const planGone = () => fail(404, { message: gone('practice plan') });
const refused = (message: string, status = 422) => fail(status, { message });
const saved = { message: '' };

/** Records a step of the assignment as done, or takes the last time that it was back. */
async function record(id: string, request: Request, isBack: boolean) {
  const found = await findProgress(db(), work, id);
  if (!found) return planGone();
  const sent = await formOf(request);
  const form = readForm(sent, stepSchema);
  if (!form.ok) return refused(Object.values(form.problems).join(' '));
  const { chunk, step, tempo: beats } = form.data;
  const known = found.progress.plans.find((p) => p.chunk.id === chunk)?.steps.find((s) => s.id === step);
  if (!known) return refused('This step is not part of the plan any more.');
  const token = sent.get('once');
  if (isBack) {
    const last = lastOfStep(db(), id, chunk, step);
    if (last === undefined)
      return refused(
        'Checked off in another chunk or an earlier version; uncheck it in the lesson where it was checked.',
      );
    once(db(), token, (tx) => String(withdrawEvent(tx, { assignment: id, withdraws: last })));
  } else
    once(db(), token, (tx) =>
      String(
        recordEvent(tx, {
          assignment: id,
          chunk,
          step,
          hand: known.hand,
          counting: known.counting,
          tempo: beats === null ? null : toQuarters(found.progress.time, beats),
          grade: null,
        }),
      ),
    );
  await deriveLine(db(), work, id);
  return saved;
}

/** A plan that a form carries. */
const planIn = (form: FormData, name: string): Plan | undefined =>
  planSchema.safeParse(json(form.get(name))).data;

/** A plan that was changed comes with both its states, so that the page can take this change back. */
const changed = (result: PlanResult) =>
  'refused' in result
    ? refused(result.refused, 409)
    : { message: '', undo: { before: JSON.stringify(result.before), after: JSON.stringify(result.after) } };

const json = (text: unknown): unknown => {
  try {
    return JSON.parse(String(text));
  } catch {
    return undefined;
  }
};

export const actions: Actions = {
  tick: ({ params, request }) => record(params.id, request, false),
  untick: ({ params, request }) => record(params.id, request, true),
  /** Gives the newest state of the version in place of the one that the learner has. */
  renew: async ({ params }) => {
    const assignment = findAssignment(db(), params.id);
    const version = assignment && findVersion(db(), assignment.versionId);
    if (!assignment || !version) return planGone();
    await giveNow(db(), work, version, assignment.learnerId);
    return saved;
  },
  goal: async ({ params, request }) => {
    const found = await findProgress(db(), work, params.id);
    if (!found) return planGone();
    const sent = await formOf(request);
    const form = readForm(sent, goalSchema);
    if (!form.ok) return refused(Object.values(form.problems).join(' '));
    const { goalDate } = form.data;
    const { time } = found.progress;
    // What is shown in beats is kept in quarter notes: a goal that was not touched stays exactly what it was.
    const was = wasIn(sent, wasGoalSchema);
    const isTouched = was.goalTempo === undefined || toBeats(time, was.goalTempo) !== form.data.goalTempo;
    const goalTempo = isTouched ? toQuarters(time, form.data.goalTempo) : was.goalTempo!;
    const done = changeGoal(db(), params.id, { goalTempo, goalDate }, was);
    if (done === 'gone') return planGone();
    if (done === 'kept') return saved;
    return meanwhile(done, was, (field, there) =>
      field === 'goalTempo'
        ? `goal tempo ${tempoText(time, there.goalTempo)}`
        : `goal date ${there.goalDate ?? 'none'}`,
    );
  },
  /** It is no longer practised nor kept alive; or is again. */
  rest: async ({ params, request }) => {
    const rests = (await formOf(request)).get('rests') === 'yes';
    if (!pauseAssignment(db(), params.id, rests ? todayIn(db()) : null)) return planGone();
    return saved;
  },
  plan: async ({ params, request }) => {
    const assignment = findAssignment(db(), params.id);
    const version = assignment && findVersion(db(), assignment.versionId);
    if (!assignment || !version) return planGone();
    const sent = await formOf(request);
    const edit = planEditSchema.safeParse(withFields(json(sent.get('edit')), sent));
    if (!edit.success)
      return refused(edit.error.issues[0]?.message ?? 'This change could not be understood.');
    const summary = await versionSummaryOf(db(), work, {
      versionId: version.id,
      pieceId: version.pieceId,
      number: assignment.edit,
    });
    return changed(editPlan(db(), params.id, edit.data, summary, planIn(sent, 'was')));
  },
  /** Takes a change of the plan back; what another window has changed since then stays. */
  undo: async ({ params, request }) => {
    const assignment = findAssignment(db(), params.id);
    const version = assignment && findVersion(db(), assignment.versionId);
    if (!assignment || !version) return planGone();
    const sent = await formOf(request);
    const after = planIn(sent, 'after');
    if (!after) return refused('This change can’t be undone any more.');
    const before = planIn(sent, 'before') ?? null;
    const summary = await versionSummaryOf(db(), work, {
      versionId: version.id,
      pieceId: version.pieceId,
      number: assignment.edit,
    });
    const undone = undoPlanEdit(db(), params.id, { before, after }, summary);
    return 'refused' in undone ? refused(undone.refused, 409) : saved;
  },
  keep: async ({ params, request }) => {
    const found = await findProgress(db(), work, params.id);
    const name = plainLine(String((await formOf(request)).get('name') ?? ''));
    if (!found) return planGone();
    if (name === '' || name.length > 60) return refused('Give the template a name of at most 60 letters.');
    keepTemplate(db(), name, found.progress.plan.method, templateOf(found.progress.plan));
    return saved;
  },
  forget: async ({ request }) => {
    const isThere = removeTemplate(db(), String((await formOf(request)).get('template')));
    return isThere ? saved : fail(404, { message: gone('template') });
  },
};

/** What is chosen in a form goes into its edit, so that it works without a script: a name, where it is split, what is added. */
function withFields(edit: unknown, form: FormData): unknown {
  if (typeof edit !== 'object' || edit === null) return edit;
  const fields = [...form].filter(
    ([name, value]) => !['edit', 'was', 'once'].includes(name) && typeof value === 'string',
  );
  return { ...edit, ...Object.fromEntries(fields) };
}
