import { keyOf } from '$core/analysis/key';
import { keyCode } from '$core/theory/key';
import { DEFAULT_RECIPE, recipeSchema } from '$core/version/recipe';
import { db } from '$server/db';
import { findLearner, listLearners, recipeFor, voiceOf } from '$server/studio/learners';
import { studioLevels } from '$server/studio/levels';
import { findPiece, scoreOf } from '$server/studio/pieces';
import { addVersion } from '$server/studio/versions';
import { error, fail, redirect } from '@sveltejs/kit';
import type { Actions, PageServerLoad } from './$types';

const recipeAt = (url: URL) => {
  const learner = findLearner(db(), url.searchParams.get('learner') ?? '');
  const base = { ...DEFAULT_RECIPE, ...(learner ? recipeFor(learner, null) : {}) };
  const level = Number(url.searchParams.get('level')) || base.level;
  return { learner, recipe: { ...base, level } };
};

export const load: PageServerLoad = ({ params, url }) => {
  const piece = findPiece(db(), params.id);
  if (!piece) error(404, 'There is no such piece.');
  const { score } = scoreOf(db(), piece.id);
  const key = keyOf(score);
  const { learner, recipe } = recipeAt(url);
  return {
    piece: { id: piece.id, title: piece.title },
    source: score,
    levels: studioLevels(db()),
    learners: listLearners(db()).map(({ id, name, level }) => ({ id, name, level })),
    learner: learner?.id ?? '',
    recipe,
    voice: learner ? voiceOf(learner) : null,
    mode: key.mode,
    current: keyCode(key),
  };
};

export const actions: Actions = {
  version: async ({ params, url, request }) => {
    const key = (await request.formData()).get('key');
    const piece = findPiece(db(), params.id);
    if (!piece) return fail(404, { message: 'This piece is no longer there.' });
    const recipe = recipeSchema.safeParse({ ...recipeAt(url).recipe, key });
    if (!recipe.success) return fail(400, { message: 'Choose one of the keys.' });
    redirect(303, `/versions/${addVersion(db(), piece.id, recipe.data)}`);
  },
};
