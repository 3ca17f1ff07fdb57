import { InputError } from '$core/io/inputError';
import { daysAfter } from '$core/lessons/calendar';
import { db } from '$server/db';
import { formOf, readForm } from '$server/forms';
import { gone } from '$server/gone';
import { todayIn } from '$server/studio/clock';
import { findLearner } from '$server/studio/learners';
import { deriveLine } from '$server/studio/progress';
import { takeResults } from '$server/studio/takenHome';
import { work } from '$server/pool';
import {
  pinSchema,
  practisedByDay,
  renewRoom,
  roomOf,
  setPin,
  toldByRoom,
  withdrawRoom,
} from '$server/studio/room';
import { error, fail } from '@sveltejs/kit';
import { z } from 'zod';
import type { Actions, PageServerLoad } from './$types';

/** Days that are shown: a month, by weeks. */
const DAYS = 28;
/** Steps that are listed. */
const TOLD = 30;

const learnerAt = (id: string) => findLearner(db(), id) ?? error(404, gone('student'));

export const load: PageServerLoad = async ({ params }) => {
  const learner = learnerAt(params.id);
  const room = roomOf(db(), learner.id);
  const today = todayIn(db());
  const since = daysAfter(today, 1 - DAYS);
  const practised = practisedByDay(db(), learner.id, since);
  return {
    learner: { id: learner.id, name: learner.name, minutesADay: learner.minutesADay },
    token: room?.token ?? null,
    hasPin: room?.pin != null,
    since: room?.createdAt ?? null,
    told: await toldByRoom(db(), work, learner.id, TOLD),
    days: Array.from({ length: DAYS }, (_, i) => {
      const day = daysAfter(since, i);
      return { day, minutes: practised.get(day) ?? 0 };
    }),
  };
};

/** Results are text: this many characters at most. */
const LONGEST = 2_000_000;

export const actions: Actions = {
  results: async ({ params, request }) => {
    const learner = learnerAt(params.id);
    const form = await formOf(request);
    const file = form.get('file');
    const typed = String(form.get('text') ?? '');
    const text = file instanceof File && file.size > 0 ? await file.text() : typed;
    if (text.trim() === '')
      return fail(422, { message: 'Choose the saved file, or paste the copied text.', typed });
    try {
      const { says, changed } = takeResults(db(), learner.id, text.slice(0, LONGEST));
      for (const id of changed) await deriveLine(db(), work, id);
      return { said: says };
    } catch (cause) {
      if (!(cause instanceof InputError)) throw cause;
      return fail(422, { message: cause.message, typed });
    }
  },
  renew: ({ params }) => {
    const had = roomOf(db(), learnerAt(params.id).id) !== undefined;
    renewRoom(db(), params.id);
    return { said: had ? 'There is a new link; the old one no longer works.' : 'The link is ready.' };
  },
  withdraw: ({ params }) => {
    withdrawRoom(db(), learnerAt(params.id).id);
    return { said: 'The link no longer works.' };
  },
  pin: async ({ params, request }) => {
    const learner = learnerAt(params.id);
    const form = readForm(await formOf(request), z.object({ pin: z.literal('').or(pinSchema) }));
    if (!form.ok) return fail(422, { message: 'A PIN is 4 to 8 digits.' });
    const { pin } = form.data;
    await setPin(db(), learner.id, pin === '' ? null : pin);
    return { said: pin === '' ? 'No PIN is asked for.' : 'The PIN is set.' };
  },
};
