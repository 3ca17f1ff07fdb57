import { gone } from '$server/gone';
import { keyCode } from '$core/theory/key';
import { documentOf, type VersionDocument } from '$core/version/document';
import { DEFAULT_RECIPE, recipeSchema } from '$core/version/recipe';
import { db } from '$server/db';
import { formOf } from '$server/forms';
import { findLearner, listLearners, startFor, voiceOf } from '$server/studio/learners';
import { studioLevels } from '$server/studio/levels';
import { findPiece } from '$server/studio/pieces';
import { work } from '$server/pool';
import { preparedKey } from '$server/studio/prepared';
import { pieceFacts } from '$server/studio/summaries';
import { once } from '$server/studio/once';
import { addVersion } from '$server/studio/versions';
import { readable } from '$server/readable';
import { error, fail, redirect } from '@sveltejs/kit';
import type { Actions, PageServerLoad } from './$types';

const wantedAt = (url: URL) => {
  const learner = findLearner(db(), url.searchParams.get('learner') ?? '');
  const base: VersionDocument = learner ? startFor(learner) : documentOf(DEFAULT_RECIPE);
  const level = Number(url.searchParams.get('level')) || base.recipe.level;
  return { learner, document: { ...base, recipe: { ...base.recipe, level } } };
};

export const load: PageServerLoad = async ({ params, url }) => {
  const piece = findPiece(db(), params.id);
  if (!piece) error(404, gone('piece'));
  const { key } = await readable(piece.id, () => pieceFacts(db(), work, piece.id));
  const { learner, document } = wantedAt(url);
  return {
    piece: { id: piece.id, title: piece.title },
    score: `/pieces/${piece.id}/score?of=${preparedKey(db(), piece.id)}`,
    levels: studioLevels(db()),
    learners: listLearners(db()).map(({ id, name, level }) => ({ id, name, level })),
    learner: learner?.id ?? '',
    document,
    voice: learner ? voiceOf(learner) : null,
    mode: key.mode,
    current: keyCode(key),
  };
};

export const actions: Actions = {
  version: async ({ params, url, request }) => {
    const sent = await formOf(request);
    const key = sent.get('key');
    const piece = findPiece(db(), params.id);
    if (!piece) return fail(404, { message: gone('piece') });
    const { document } = wantedAt(url);
    const recipe = recipeSchema.safeParse({ ...document.recipe, key });
    if (!recipe.success) return fail(400, { message: 'Choose one of the keys.' });
    const id = once(db(), sent.get('once'), (tx) =>
      addVersion(tx, piece.id, { ...document, recipe: recipe.data }),
    );
    redirect(303, `/versions/${id}`);
  },
};
