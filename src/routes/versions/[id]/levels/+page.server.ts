import { gone } from '$server/gone';
import { levelText } from '$core/arrange/levels';
import { db } from '$server/db';
import { formOf } from '$server/forms';
import { studioLevels } from '$server/studio/levels';
import { phraseAsked } from '$server/phraseAsked';
import { about, work } from '$server/pool';
import { drawn } from '$server/pool/drawn';
import { once } from '$server/studio/once';
import { addVersion, documentOfVersion, findVersion, listVersions } from '$server/studio/versions';
import { readable } from '$server/readable';
import { inRoom, SHOWN_COOKIE, shownFrom } from '$ui/shown/shown';
import { error, fail, redirect } from '@sveltejs/kit';
import type { Actions, PageServerLoad } from './$types';

const SHOW = { width: 860, fingers: true, counts: false, chords: true };

export const load: PageServerLoad = async ({ params, url, request, cookies }) => {
  const row = findVersion(db(), params.id);
  if (!row) error(404, gone('version'));
  const document = await readable(row.pieceId, () => documentOfVersion(db(), row));
  const levels = studioLevels(db());
  const at = phraseAsked(url);
  const seen = shownFrom(cookies.get(SHOWN_COOKIE), request.headers.get('user-agent') ?? '');

  const asked = about(row.pieceId, request);
  /** The version at one level, and the picture of the phrase in it. */
  const atLevel = async (level: number, isLater: boolean) => {
    const wish = { ...asked, isLater };
    const { sheet, ...made } = await work(
      'level',
      {
        pieceId: row.pieceId,
        document: { ...document, recipe: { ...document.recipe, level } },
        show: inRoom(SHOW, seen),
        phrase: at,
      },
      wish,
    );
    const [picture] = await drawn([sheet], wish);
    return { ...made, picture };
  };
  const [first, ...others] = levels;
  // The first level comes with the page, the others follow.
  const shown = await readable(row.pieceId, () => atLevel(first!.level, false));
  const following = others.map(({ level }) => {
    const made = atLevel(level, true);
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
    if (!version) return fail(404, { message: gone('version') });
    const known = studioLevels(db()).map((l) => l.level);
    const sent = await formOf(request);
    const levels = sent
      .getAll('level')
      .map(Number)
      .filter((level) => known.includes(level));
    if (levels.length === 0) return fail(400, { message: 'Choose at least one level.' });
    const document = documentOfVersion(db(), version);
    once(db(), sent.get('once'), (tx) => {
      for (const level of levels)
        addVersion(tx, version.pieceId, { ...document, recipe: { ...document.recipe, level } });
      return '';
    });
    redirect(303, `/pieces/${version.pieceId}#versions`);
  },
};
