import { FEWEST_DECISIONS, habitKey } from '$core/fingering/houseHand';
import { habitsOf } from '$core/fingering/taste';
import { db } from '$server/db';
import { formOf, readForm } from '$server/forms';
import { forgetHouseHand } from '$server/studio/houseHand';
import { houseHand, setHouseHand } from '$server/studio/houseTaste';
import { fail } from '@sveltejs/kit';
import { z } from 'zod';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = () => {
  const { learned, decisions, shares, isOn } = houseHand(db());
  return {
    decisions,
    fewest: FEWEST_DECISIONS,
    isOn,
    habits: habitsOf(learned).map((habit) => {
      const key = habitKey(habit);
      return { key, text: habit.text, strength: habit.strength, share: shares[key] ?? 1 };
    }),
  };
};

const shareSchema = z.object({ key: z.string().max(40), share: z.coerce.number().min(0).max(1) });

export const actions: Actions = {
  share: async ({ request }) => {
    const form = readForm(await formOf(request), shareSchema);
    if (!form.ok) return fail(422, { message: Object.values(form.problems).join(' ') });
    const { key, share } = form.data;
    setHouseHand(db(), { shares: { ...houseHand(db()).shares, [key]: share } });
    return { said: 'Saved. New versions use it.' };
  },
  turn: async ({ request }) => {
    const isOn = (await formOf(request)).get('on') === 'yes';
    setHouseHand(db(), { isOn });
    return { said: isOn ? 'New versions use it again.' : 'New versions don’t use it.' };
  },
  forget: () => {
    forgetHouseHand(db());
    return { said: 'Reset. Suggestions use standard fingering.' };
  },
};
