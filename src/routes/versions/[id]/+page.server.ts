import { gone } from '$server/gone';
import { WRITTEN_FORMATS } from '$core/io/writeScoreFile';
import { db } from '$server/db';
import { formOf, readForm } from '$server/forms';
import { holdersOf } from '$server/studio/assignments';
import { giveNow } from '$server/studio/giving';
import { todayIn } from '$server/studio/clock';
import { addLearner, findLearner, learnerSchema, listLearners, usualLearner } from '$server/studio/learners';
import { once } from '$server/studio/once';
import { houseTaste } from '$server/studio/houseTaste';
import { studioLevels } from '$server/studio/levels';
import { studioPatterns } from '$server/studio/patterns';
import type { Sheet } from '$lib/engrave/sheet';
import { about, work } from '$server/pool';
import { drawn } from '$server/pool/drawn';
import { preparedKey } from '$server/studio/prepared';
import { findVersion, savedState, signVersion, unsignVersion } from '$server/studio/versions';
import type { Opening } from '$ui/bench/opening';
import { readable } from '$server/readable';
import { SHOWN_COOKIE, sheetWish, shownFrom } from '$ui/shown/shown';
import { weightOfPiece } from '$server/studio/pieces';
import { isTooLong } from '$server/studio/weight';
import { error, fail, redirect } from '@sveltejs/kit';
import type { Actions, PageServerLoad } from './$types';

/** Phrases whose pictures come with the page: what is seen of it at first. */
const FIRST = 3;

export const load: PageServerLoad = async ({ params, request, cookies, url }) => {
  const row = findVersion(db(), params.id);
  if (!row) error(404, gone('version'));
  // Said at once: to arrange it would take longer than anybody waits.
  if (isTooLong(weightOfPiece(db(), row.pieceId))) redirect(303, `/pieces/${row.pieceId}/cut`);
  /** What the bench shows, and how wide: the worker draws the same. */
  const shown = shownFrom(cookies.get(SHOWN_COOKIE), request.headers.get('user-agent') ?? '');
  const saved = await readable(row.pieceId, () => savedState(db(), row.id)!);
  const levels = studioLevels(db());
  const holders = holdersOf(db(), row.id);
  const asked = about(row.pieceId, request);
  const { opening, sheets }: { opening: Opening; sheets: Sheet[] } = await readable(row.pieceId, () =>
    work(
      'opening',
      { pieceId: row.pieceId, document: saved.document, show: sheetWish(shown), first: FIRST },
      asked,
    ),
  );
  return {
    version: {
      id: row.id,
      pieceId: row.pieceId,
      title: row.title,
      name: row.name,
      signedEdit: row.signedEdit,
      signedAt: row.signedAt,
    },
    /** The place to open at: a note or a measure. */
    at: url.searchParams.get('at'),
    saved,
    /** Names the content: a piece that has not changed is not fetched again. */
    score: `/pieces/${row.pieceId}/score?of=${preparedKey(db(), row.pieceId)}`,
    shown,
    opening,
    pictures: await readable(row.pieceId, () => drawn(sheets, asked)),
    levels,
    patterns: studioPatterns(db()),
    taste: houseTaste(db()),
    holders,
    formats: WRITTEN_FORMATS.map(({ ending, name }) => ({ ending, name })),
    learners: listLearners(db()).map(({ id, name, level }) => {
      const held = holders.find((h) => h.learnerId === id);
      return { id, name, level, has: held !== undefined, isNewest: held?.edit === row.edit };
    }),
  };
};

export const actions: Actions = {
  /** Marks the version, as it is now, as ready; or takes that back. */
  sign: async ({ params, request }) => {
    const version = findVersion(db(), params.id);
    if (!version) return fail(404, { message: gone('version') });
    if ((await formOf(request)).get('sign') === 'no') unsignVersion(db(), version.id);
    else signVersion(db(), version);
    return {};
  },
  give: async ({ params, request }) => {
    const version = findVersion(db(), params.id);
    const asked = (await formOf(request)).getAll('learner').map((id) => findLearner(db(), String(id)));
    if (!version) return fail(404, { message: gone('version') });
    const learners = asked.filter((one) => one !== undefined);
    if (learners.length < Math.max(1, asked.length)) return fail(404, { message: gone('student') });
    const plans: { readonly name: string; readonly assignment: string }[] = [];
    for (const { id, name } of learners)
      plans.push({ name, assignment: await giveNow(db(), work, version, id) });
    return { given: learners.map((one) => one.name).join(', '), plans };
  },
  /** A student who is not there yet: added with what goes for most, at the level of the version, and given it. */
  giveNew: async ({ params, request }) => {
    const version = findVersion(db(), params.id);
    if (!version) return fail(404, { message: gone('version') });
    const sent = await formOf(request);
    const form = readForm(sent, learnerSchema.pick({ name: true }));
    if (!form.ok) return fail(422, { message: Object.values(form.problems).join(' ') });
    const input = learnerSchema.parse({ ...usualLearner(version.level), name: form.data.name });
    const id = once(db(), sent.get('once'), (tx) => addLearner(tx, input, todayIn(tx)));
    const assignment = await giveNow(db(), work, version, id);
    return { given: form.data.name, plans: [{ name: form.data.name, assignment }] };
  },
};
