import { daysAfter, weekStart, type Day } from '$core/lessons/calendar';
import { stateOf } from '$core/lessons/slots';
import { db } from '$server/db';
import { formOf, readForm } from '$server/forms';
import { todayIn, zoneOf } from '$server/studio/clock';
import { localeOf } from '$server/studio/locale';
import { listGroups } from '$server/studio/groups';
import { learnerNames } from '$server/studio/learners';
import {
  addHoliday,
  addSlot,
  editSlot,
  holidays,
  holidaySchema,
  lessonsBetween,
  newSlotSchema,
  isThere,
  removeHoliday,
  slotEditSchema,
} from '$server/studio/slots';
import { gone } from '$server/gone';
import { once } from '$server/studio/once';
import { shortDate, timeText } from '$ui/text';
import { fail } from '@sveltejs/kit';
import { z } from 'zod';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = ({ url }) => {
  const today = todayIn(db());
  const day: Day = z.iso
    .date()
    .catch(today)
    .parse(url.searchParams.get('day') ?? today);
  const isMonth = url.searchParams.get('as') === 'month';
  const { firstDay } = localeOf(db());
  const first = weekStart(isMonth ? `${day.slice(0, 7)}-01` : day, firstDay);
  // A month is whole weeks, until its last day is in.
  const weeks = isMonth
    ? ([4, 5, 6].find((n) => daysAfter(first, 7 * n).slice(0, 7) > day.slice(0, 7)) ?? 6)
    : 1;
  const last = daysAfter(first, 7 * weeks - 1);
  const planned = lessonsBetween(db(), first, last);
  return {
    today,
    day,
    isMonth,
    days: Array.from({ length: 7 * weeks }, (_, i) => daysAfter(first, i)).map((date) => ({
      date,
      isOutside: isMonth && date.slice(0, 7) !== day.slice(0, 7),
      lessons: planned.filter((l) => l.day === date).map((l) => ({ ...l, was: stateOf(l) })),
    })),
    holidays: holidays(db()).filter((h) => h.to >= today),
    learners: learnerNames(db()),
    classes: listGroups(db()).map(({ id, name }) => ({ id, name })),
    zone: zoneOf(db()),
  };
};

const refused = (problems: Partial<Record<string, string>>) =>
  fail(422, { message: Object.values(problems).join(' ') });

export const actions: Actions = {
  edit: async ({ request }) => {
    const form = readForm(await formOf(request), slotEditSchema);
    if (!form.ok) return refused(form.problems);
    const done = editSlot(db(), form.data);
    if (done === 'gone') return fail(404, { message: gone('recurring lesson') });
    if (done === 'done') return { message: '' };
    const { there } = done;
    return fail(409, {
      message: there
        ? `This lesson was changed in another window: it is now ${there.state === 'cancelled' ? 'canceled' : `on ${shortDate(there.day)} at ${timeText(there.time)}, ${there.minutes} minutes`}. Make your change again if you still want it.`
        : 'This lesson was changed in another window and isn’t on this day any more. You now see the saved week.',
    });
  },
  add: async ({ request }) => {
    const sent = await formOf(request);
    const form = readForm(sent, newSlotSchema);
    if (!form.ok) return refused(form.problems);
    const { whose } = form.data;
    if (!isThere(db(), whose))
      return fail(404, { message: gone(whose.startsWith('class') ? 'class' : 'student') });
    once(db(), sent.get('once'), (tx) => addSlot(tx, form.data));
    return { message: '' };
  },
  holiday: async ({ request }) => {
    const sent = await formOf(request);
    const form = readForm(sent, holidaySchema);
    if (!form.ok) return refused(form.problems);
    once(db(), sent.get('once'), (tx) => addHoliday(tx, form.data));
    return { message: '' };
  },
  work: async ({ request }) => {
    const isRemoved = removeHoliday(db(), String((await formOf(request)).get('id')));
    return isRemoved ? { message: '' } : fail(404, { message: gone('holiday') });
  },
};
