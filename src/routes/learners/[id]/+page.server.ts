import { db } from '$server/db';
import { formOf, readForm } from '$server/forms';
import { addLesson, findLearner, learnerSchema, lessonsOf, updateLearner } from '$server/studio/learners';
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
    pieces: await piecesOfLearner(db(), work, learner.id),
    lessons: lessonsOf(db(), learner.id),
    levels: levelNames(db()),
    today: new Date().toISOString().slice(0, 10),
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

export const actions: Actions = {
  learner: async ({ params, request }) => {
    const form = readForm(await formOf(request), learnerSchema);
    if (!form.ok) return fail(422, { problems: form.problems, lessonProblems: undefined });
    updateLearner(db(), params.id, form.data);
    return { kept: true };
  },
  lesson: async ({ params, request }) => {
    if (!findLearner(db(), params.id)) error(404, 'There is no such learner.');
    const form = readForm(await formOf(request), lessonSchema);
    if (!form.ok) return fail(422, { problems: undefined, lessonProblems: form.problems });
    addLesson(db(), params.id, form.data.date, form.data.note);
    return { kept: true };
  },
};
