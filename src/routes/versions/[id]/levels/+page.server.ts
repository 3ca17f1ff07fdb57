import { levelText } from '$core/arrange/levels';
import { scoreOfWhole } from '$core/difficulty/level';
import { keyName } from '$core/theory/key';
import { listed } from '$core/version/document';
import { realise } from '$core/version/realise';
import { db } from '$server/db';
import { studioLevels } from '$server/studio/levels';
import { picturesOf } from '$server/studio/opening';
import { preparedPiece } from '$server/studio/prepared';
import { addVersion, documentOfVersion, findVersion, listVersions } from '$server/studio/versions';
import { error, fail, redirect } from '@sveltejs/kit';
import { z } from 'zod';
import type { Actions, PageServerLoad } from './$types';

/** The page goes out before the other levels are begun, in milliseconds. */
const HEAD_START = 400;

const SHOW = { width: 860, fingers: true, counts: false, chords: true };

export const load: PageServerLoad = async ({ params, url }) => {
  const row = findVersion(db(), params.id);
  if (!row) error(404, 'There is no such version.');
  const document = documentOfVersion(db(), row);
  const { score } = preparedPiece(db(), row.pieceId);
  const levels = studioLevels(db());
  const at = z.coerce
    .number()
    .int()
    .min(0)
    .catch(0)
    .parse(url.searchParams.get('phrase') ?? 0);

  /** The version at one level, and the picture of the phrase in it. */
  const atLevel = async (level: number) => {
    const version = realise(score, { ...document.recipe, level }, listed(document), levels);
    const { phrases } = version.form;
    const phrase = phrases[Math.min(at, phrases.length - 1)];
    return {
      key: keyName(version.key),
      hard: scoreOfWhole(version.difficulty),
      account: version.accountText,
      form: version.form,
      numbers: version.score.measures.map((m) => m.number),
      picture: phrase ? (await picturesOf(version, [phrase], SHOW))[0] : undefined,
    };
  };
  const [first, ...others] = levels;
  const shown = await atLevel(first!.level);
  // The first level comes with the page; the others follow one by one, so that other pages are answered in between.
  let before: Promise<unknown> = new Promise((resolve) => setTimeout(resolve, HEAD_START));
  const following = others.map(({ level }) => {
    const made = before.then(() => new Promise(setImmediate)).then(() => atLevel(level));
    before = made.catch(() => undefined);
    made.catch(() => undefined);
    return made;
  });
  return {
    version: { id: row.id, title: row.title },
    levels: levels.map(({ level, name }) => ({ level, name, text: levelText(level) })),
    at,
    first: shown,
    following,
    /** Levels at which the piece has a version already. */
    made: [...new Set(listVersions(db(), row.pieceId).map((v) => v.level))],
  };
};

export const actions: Actions = {
  /** Makes a version of each chosen level, with this version's other settings and decisions: a set for a class. */
  set: async ({ params, request }) => {
    const version = findVersion(db(), params.id);
    if (!version) return fail(404, { message: 'This version is no longer there.' });
    const known = studioLevels(db()).map((l) => l.level);
    const levels = (await request.formData())
      .getAll('level')
      .map(Number)
      .filter((level) => known.includes(level));
    if (levels.length === 0) return fail(400, { message: 'Choose at least one level.' });
    const document = documentOfVersion(db(), version);
    db().transaction((tx) => {
      for (const level of levels)
        addVersion(tx, version.pieceId, { ...document, recipe: { ...document.recipe, level } });
    });
    redirect(303, `/pieces/${version.pieceId}#versions`);
  },
};
