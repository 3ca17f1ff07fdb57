import { db } from '$server/db';
import { holdersOf } from '$server/studio/assignments';
import { findPiece } from '$server/studio/pieces';
import { phraseAsked } from '$server/phraseAsked';
import { about, work } from '$server/pool';
import { drawn } from '$server/pool/drawn';
import { documentAt, findVersion } from '$server/studio/versions';
import { readable } from '$server/readable';
import { error } from '@sveltejs/kit';
import { z } from 'zod';
import type { PageServerLoad } from './$types';

/** Width of the music on paper, in CSS pixels: fits A4 and Letter between their margins. */
const PAPER_WIDTH = 700;
/** Phrases that come with the page. */
const FIRST = 1;
/** Phrases of one page: longer music goes on behind a link, so that no page takes the memory of everybody. */
const MOST = 32;

export const load: PageServerLoad = async ({ params, url, request }) => {
  const row = findVersion(db(), params.id);
  const piece = row && findPiece(db(), row.pieceId);
  if (!row || !piece) error(404, 'There is no such version.');
  // Any earlier state can be looked at.
  const number = z.coerce
    .number()
    .int()
    .min(0)
    .max(row.edit)
    .catch(row.edit)
    .parse(url.searchParams.get('at') ?? row.edit);
  const document = await readable(piece.id, () => documentAt(db(), row.id, number));
  const of = { pieceId: row.pieceId, document };
  const asked = about(row.pieceId, request);
  const { form, ...facts } = await readable(piece.id, () => work('handout', of, asked));
  const shows = (what: string): boolean => url.searchParams.get(what) !== 'no';
  const show = {
    width: PAPER_WIDTH,
    fingers: shows('fingers'),
    counts: shows('counts'),
    chords: shows('chords'),
  };
  const phrases = async (from: number, to: number, isLater: boolean) => {
    const wish = { ...asked, isLater };
    const made = await work('phrases', { ...of, show, from, to }, wish);
    const pictures = await drawn(
      made.map((p) => p.sheet),
      wish,
    );
    return made.map(({ sheet: _sheet, ...phrase }, i) => ({ ...phrase, svg: pictures[i]! }));
  };
  // The first phrases come with the page and the others behind them; without a script the page is asked for whole.
  const all = form.phrases.length;
  const wanted = phraseAsked(url);
  const begin = Math.min(wanted, Math.max(0, all - 1));
  const end = Math.min(all, begin + MOST);
  const first = url.searchParams.has('whole') ? end : Math.min(begin + FIRST, end);
  const begun = await readable(piece.id, () => phrases(begin, first, false));
  // One by one, so that other pages are drawn in between.
  const others = Promise.all(
    Array.from({ length: end - first }, (_, i) => phrases(first + i, first + i + 1, true)),
  ).then((each) => each.flat());
  others.catch(() => undefined);
  return {
    id: row.id,
    title: piece.title,
    composer: piece.composer,
    rights: piece.rights,
    learners: holdersOf(db(), row.id).map((h) => h.name),
    level: document.recipe.level,
    /** The state that is shown, where it is not the newest. */
    earlier: number === row.edit ? null : number,
    ...facts,
    form,
    /** The phrase with which the music goes on behind this page. */
    goesOn: end < all ? { phrase: end, measure: form.phrases[end]!.from } : null,
    phrases: begun,
    others,
    paper: url.searchParams.get('paper') === 'letter' ? ('letter' as const) : ('a4' as const),
    shown: {
      fingers: show.fingers,
      counts: show.counts,
      chords: show.chords,
      steps: shows('steps'),
    },
  };
};
