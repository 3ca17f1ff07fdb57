import { db } from '$server/db';
import { formOf, readForm } from '$server/forms';
import {
  addLesson,
  findLearner,
  learnerSchema,
  learnerState,
  lessonsOf,
  updateLearner,
  type LearnerRow,
} from '$server/studio/learners';
import { todayIn } from '$server/studio/clock';
import { once } from '$server/studio/once';
import { levelNames } from '$server/studio/levels';
import { work } from '$server/pool';
import { piecesOfLearner } from '$server/studio/progress';
import { error, fail } from '@sveltejs/kit';
import { z } from 'zod';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ params }) => {
  const learner = findLearner(db(), params.id);
  if (!learner) error(404, 'There is no such learner.');
  return {
    learner,
    /** Names what is saved: a form that was filled in over it says so. */
    was: learnerState(learner),
    pieces: await piecesOfLearner(db(), work, learner.id),
    lessons: lessonsOf(db(), learner.id),
    levels: levelNames(db()),
    today: todayIn(db()),
  };
};

const lessonSchema = z.object({
  date: z.iso.date('Choose the day of the lesson.'),
  note: z
    .string()
    .trim()
    .min(1, 'Write what was said or set.')
    .max(2000, 'Keep the note under 2000 letters.'),
});

/** What is saved of a learner, in a line. */
const learnerText = ({ name, level, reachRight, reachLeft, keyboard, hasPedal, time }: LearnerRow): string =>
  `${name}, level ${level}, ${time ?? 'no time'}, reach ${reachRight} and ${reachLeft}, ${keyboard} keys, ${hasPedal ? 'a pedal' : 'no pedal'}`;

export const actions: Actions = {
  learner: async ({ params, request }) => {
    const sent = await formOf(request);
    const form = readForm(sent, learnerSchema);
    if (!form.ok) return fail(422, { problems: form.problems, lessonProblems: undefined });
    const done = updateLearner(db(), params.id, form.data, String(sent.get('was') ?? ''));
    if (done === 'gone') error(404, 'This learner is no longer there.');
    if (done === 'kept') return { kept: true };
    const now = findLearner(db(), params.id)!;
    return fail(409, {
      problems: {},
      lessonProblems: undefined,
      // The next time it is meant: it is known what is overwritten.
      was: learnerState(now),
      meanwhile: `Somebody else has changed this learner since this page was opened: ${learnerText(now)}. What you have filled in still stands here; press Keep again to have it instead.`,
    });
  },
  lesson: async ({ params, request }) => {
    if (!findLearner(db(), params.id)) error(404, 'There is no such learner.');
    const sent = await formOf(request);
    const form = readForm(sent, lessonSchema);
    if (!form.ok) return fail(422, { problems: undefined, lessonProblems: form.problems });
    once(db(), sent.get('once'), (tx) => addLesson(tx, params.id, form.data.date, form.data.note));
    return { kept: true };
  },
};
