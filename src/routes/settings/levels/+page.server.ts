import { LEVELS, levelSchema, levelsSchema, type LevelContract } from '$core/arrange/levels';
import { gone } from '$server/gone';
import { meanwhile } from '$server/meanwhile';
import { once } from '$server/studio/once';
import { LIMIT_NAMES } from '$ui/settings/limitNames';
import { z } from 'zod';
import { db } from '$server/db';
import { formOf } from '$server/forms';
import {
  addLevelAfter,
  changeLevel,
  removeLevel,
  resetLevels,
  studioLevels,
  type LevelMet,
} from '$server/studio/levels';
import { fail, redirect } from '@sveltejs/kit';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = ({ url }) => {
  const levels = studioLevels(db());
  const wanted = Number(url.searchParams.get('level'));
  return {
    levels,
    chosen: levels.find((l) => l.level === wanted) ?? levels[0]!,
    changed: levels !== LEVELS,
    shipped: LEVELS.map((l) => l.level),
  };
};

/** A form as a contract; what it leaves empty is no limit. */
function contractFrom(data: FormData, level: number): unknown {
  const text = (name: string): string => String(data.get(name) ?? '').trim();
  const number = (name: string): number | null => (text(name) === '' ? null : Number(text(name)));
  const dots = (name: string): number[] | null =>
    data.has(`${name}Any`) ? null : data.getAll(name).map(Number);
  const onsets = number('leftOnsets');
  return {
    level,
    name: text('name'),
    accidentals: number('accidentals'),
    rightNotes: number('rightNotes'),
    leftNotes: number('leftNotes'),
    span: number('span'),
    shortestSimple: number('shortestSimple'),
    shortestCompound: number('shortestCompound'),
    dotted: dots('dotted'),
    dottedCompound: dots('dottedCompound'),
    ties: text('ties'),
    tuplets: text('tuplets'),
    leap: number('leap'),
    leftOnsets: onsets === null ? null : { per: text('leftOnsetsPer'), most: onsets },
    overlap: text('overlap'),
    pedal: text('pedal'),
    tempoShare: number('tempoShare'),
    accompaniment: text('accompaniment'),
    steadiness: number('steadiness'),
  };
}

const levelOf = (url: URL): number => Number(url.searchParams.get('level'));

/** The level, or all levels, that a form was filled in over. */
function wasOf<T>(form: FormData, schema: z.ZodType<T>): T | undefined {
  try {
    return schema.safeParse(JSON.parse(String(form.get('was')))).data;
  } catch {
    return undefined;
  }
}

/** What another window has made of a level. */
const met = (other: LevelMet, was: Partial<LevelContract>) =>
  other === 'gone'
    ? fail(404, { message: gone('level'), problems: {} })
    : meanwhile(other, was, (limit, there) => `${LIMIT_NAMES[limit]}: ${valueText(there[limit])}`);

const valueText = (value: unknown): string =>
  value === null
    ? 'no limit'
    : typeof value === 'object'
      ? Object.values(value).join(' per ') || 'none'
      : String(value as string | number);

export const actions: Actions = {
  save: async ({ request, url }) => {
    const sent = await formOf(request);
    const parsed = levelSchema.safeParse(contractFrom(sent, levelOf(url)));
    if (!parsed.success)
      return fail(400, {
        message: 'This level isn’t saved yet.',
        problems: Object.fromEntries(parsed.error.issues.map((i) => [String(i.path[0]), i.message] as const)),
      });
    const was = wasOf(sent, levelSchema) ?? {};
    const other = changeLevel(db(), parsed.data, was);
    return other ? met(other, was) : { saved: parsed.data.level };
  },
  add: async ({ request, url }) => {
    const led = once(db(), (await formOf(request)).get('once'), (tx) =>
      String(addLevelAfter(tx, levelOf(url)) ?? ''),
    );
    if (led === '') return fail(400, { message: 'There’s no room for another level between these two.' });
    redirect(303, `?level=${led}`);
  },
  remove: async ({ request, url }) => {
    const was = wasOf(await formOf(request), levelSchema) ?? {};
    const other = removeLevel(db(), levelOf(url), was);
    if (other === 'last') return fail(400, { message: 'At least one level has to stay.' });
    if (other) return met(other, was);
    redirect(303, '?');
  },
  reset: async ({ request }) => {
    if (!resetLevels(db(), wasOf(await formOf(request), levelsSchema)))
      return fail(409, {
        message:
          'A level was changed in another window. You now see the saved levels; reset them again if you like.',
      });
    redirect(303, '?');
  },
};
