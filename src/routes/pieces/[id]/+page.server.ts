import { keyOf } from '$core/analysis/key';
import { reportOf } from '$core/analysis/report';
import { WRITTEN_FORMATS } from '$core/io/writeScoreFile';
import { PART_CHOICES, type PartChoices } from '$core/score/parts';
import { keyOptions } from '$core/theory/easyKeys';
import { keyCode, keyName } from '$core/theory/key';
import { versionKey } from '$core/version/realise';
import { partFacts } from '$lib/engrave/preview';
import { DEFAULT_RECIPE, recipeSchema } from '$core/version/recipe';
import { db } from '$server/db';
import { findLearner, listLearners, recipeFor } from '$server/studio/learners';
import { levelNames, studioLevels } from '$server/studio/levels';
import {
  findPiece,
  partsOf,
  RIGHTS,
  scoreOf,
  sectionsOf,
  setParts,
  setRights,
  sourceScore,
} from '$server/studio/pieces';
import { addVersion, listVersions } from '$server/studio/versions';
import { holdersOf } from '$server/studio/assignments';
import { error, fail, redirect } from '@sveltejs/kit';
import { z } from 'zod';
import type { Actions, PageServerLoad } from './$types';

/** Longer pieces are analysed by the page's own worker, which shows how far it is. */
const LONG = 240;

export const load: PageServerLoad = ({ params }) => {
  const piece = findPiece(db(), params.id);
  if (!piece) error(404, 'There is no such piece.');
  const { score, warnings } = scoreOf(db(), piece.id);
  const key = keyOf(score);
  const levels = studioLevels(db());
  return {
    piece,
    warnings,
    rights: RIGHTS,
    parts: { list: partFacts(sourceScore(db(), piece.id).score.parts), choices: partsOf(db(), piece.id) },
    formats: WRITTEN_FORMATS.map(({ ending, name }) => ({ ending, name })),
    numbers: score.measures.map((m) => m.number),
    report: score.measures.length > LONG ? null : reportOf(score),
    sections: sectionsOf(db(), piece.id),
    versions: listVersions(db(), piece.id).map(({ id, recipe, decisions }) => ({
      id,
      level: recipe.level,
      style: recipe.style,
      key: keyName(versionKey(score, recipe, levels)),
      decisions: decisions.length,
      holders: holdersOf(db(), id).map((h) => h.name),
    })),
    keys: keyOptions(key.mode),
    sourceKeyCode: keyCode(key),
    levels: levelNames(db()),
    learners: listLearners(db()).map(({ id, name, level }) => ({ id, name, level })),
  };
};

export const actions: Actions = {
  version: async ({ params, request }) => {
    const data = await request.formData();
    const piece = findPiece(db(), params.id);
    if (!piece) return fail(404, { message: 'This piece is no longer there.' });
    const learner = findLearner(db(), String(data.get('learner') ?? ''));
    const base = learner ? recipeFor(learner, null) : DEFAULT_RECIPE;
    const key = String(data.get('key') ?? '') || null;
    const recipe = recipeSchema.safeParse({
      ...base,
      level: Number(data.get('level')) || base.level,
      key,
    });
    if (!recipe.success) return fail(400, { message: 'Choose a level and a key from the lists.' });
    redirect(303, `/versions/${addVersion(db(), piece.id, recipe.data)}`);
  },
  parts: async ({ params, request }) => {
    const data = await request.formData();
    if (!findPiece(db(), params.id)) return fail(404, { message: 'This piece is no longer there.' });
    const choices: PartChoices = {};
    for (const { id } of sourceScore(db(), params.id).score.parts) {
      const choice = z.enum(PART_CHOICES).safeParse(data.get(`part ${id}`));
      if (choice.success) choices[id] = choice.data;
    }
    setParts(db(), params.id, choices);
    return {};
  },
  rights: async ({ params, request }) => {
    const rights = z.enum(RIGHTS).safeParse((await request.formData()).get('rights'));
    if (!rights.success) return fail(400, { message: 'Choose one of the rights offered.' });
    setRights(db(), params.id, rights.data);
    return {};
  },
};
