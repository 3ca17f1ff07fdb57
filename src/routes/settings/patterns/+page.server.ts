import { unitAndSteps, studioPatternSchema, teacherPattern } from '$core/arrange/teacherPattern';
import { db } from '$server/db';
import { formOf, readForm } from '$server/forms';
import { keepPattern, MOST_PATTERNS, removePattern, studioPatterns } from '$server/studio/patterns';
import { fail } from '@sveltejs/kit';
import { z } from 'zod';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = () => ({
  patterns: studioPatterns(db()).map(({ hand, text }) => ({
    hand,
    text,
    name: teacherPattern(text).name,
    steps: unitAndSteps(teacherPattern(text)),
  })),
});

/** A typed pattern: its name and steps are two fields of the form. */
const typedSchema = z
  .object({ hand: z.enum(['left', 'right']), name: z.string().max(60), steps: z.string().max(400) })
  .transform(({ hand, name, steps }) => ({ hand, text: `${name.replaceAll(':', ' ')}: ${steps}` }))
  .pipe(studioPatternSchema);

export const actions: Actions = {
  add: async ({ request }) => {
    const form = readForm(await formOf(request), typedSchema);
    if (!form.ok) return fail(422, { message: Object.values(form.problems).join(' '), values: form.values });
    if (!keepPattern(db(), form.data))
      return fail(409, {
        message: `A studio has at most ${MOST_PATTERNS} patterns. Remove one first.`,
        values: {},
      });
    return { said: `“${teacherPattern(form.data.text).name}” is saved. Choose it on any bench.` };
  },
  remove: async ({ request }) => {
    const form = readForm(await formOf(request), studioPatternSchema);
    if (!form.ok) return fail(422, { message: Object.values(form.problems).join(' '), values: {} });
    removePattern(db(), form.data);
    return { said: `“${teacherPattern(form.data.text).name}” is removed. Versions that play it keep it.` };
  },
};
