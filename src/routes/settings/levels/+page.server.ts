import { LEVELS, levelSchema, levelsSchema, type LevelContract } from '$core/arrange/levels';
import { db } from '$server/db';
import { formOf } from '$server/forms';
import { setStudioLevels, studioLevels } from '$server/studio/levels';
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

const keep = (levels: readonly LevelContract[] | null): void => setStudioLevels(db(), levels);

const levelOf = (url: URL): number => Number(url.searchParams.get('level'));

/** The number of a new level after another: halfway to the next, or the next whole one. */
function numberAfter(levels: readonly LevelContract[], level: number): number | undefined {
  const next = levels.find((l) => l.level > level)?.level;
  const wanted = next === undefined ? Math.floor(level) + 1 : level + 0.5;
  return next !== undefined && wanted >= next ? undefined : wanted;
}

export const actions: Actions = {
  save: async ({ request, url }) => {
    const parsed = levelSchema.safeParse(contractFrom(await formOf(request), levelOf(url)));
    if (!parsed.success)
      return fail(400, {
        message: 'This level is not kept yet.',
        problems: Object.fromEntries(parsed.error.issues.map((i) => [String(i.path[0]), i.message] as const)),
      });
    const others = studioLevels(db()).filter((l) => l.level !== parsed.data.level);
    keep(levelsSchema.parse([...others, parsed.data]));
    return { saved: parsed.data.level };
  },
  add: ({ url }) => {
    const levels = studioLevels(db());
    const model = levels.find((l) => l.level === levelOf(url)) ?? levels.at(-1)!;
    const level = numberAfter(levels, model.level);
    if (level === undefined || level > 12)
      return fail(400, { message: 'There is no room for another level between these two.' });
    keep(levelsSchema.parse([...levels, { ...model, level, name: `${model.name}, and more` }]));
    redirect(303, `?level=${level}`);
  },
  remove: ({ url }) => {
    const left = studioLevels(db()).filter((l) => l.level !== levelOf(url));
    if (left.length === 0) return fail(400, { message: 'One level has to stay.' });
    keep(left);
    redirect(303, '?');
  },
  reset: () => {
    keep(null);
    redirect(303, '?');
  },
};
