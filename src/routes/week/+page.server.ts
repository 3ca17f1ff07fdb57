import { daysAfter, mondayOf, type Day } from '$core/lessons/calendar';
import { db } from '$server/db';
import { formOf, readForm } from '$server/forms';
import { todayIn, zoneOf } from '$server/studio/clock';
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
  removeHoliday,
  slotEditSchema,
} from '$server/studio/slots';
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
  const first = isMonth ? mondayOf(`${day.slice(0, 7)}-01`) : mondayOf(day);
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
      lessons: planned.filter((l) => l.day === date),
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
    if (!editSlot(db(), form.data)) return fail(404, { message: 'This lesson is no longer there.' });
    return { message: '' };
  },
  add: async ({ request }) => {
    const form = readForm(await formOf(request), newSlotSchema);
    if (!form.ok) return refused(form.problems);
    addSlot(db(), form.data);
    return { message: '' };
  },
  holiday: async ({ request }) => {
    const form = readForm(await formOf(request), holidaySchema);
    if (!form.ok) return refused(form.problems);
    addHoliday(db(), form.data);
    return { message: '' };
  },
  work: async ({ request }) => {
    removeHoliday(db(), String((await formOf(request)).get('id')));
    return { message: '' };
  },
};
