import { chunksOf, stepsOf } from '$core/lessons/plan';
import { db } from '$server/db';
import { holdersOf } from '$server/studio/assignments';
import { findPiece } from '$server/studio/pieces';
import { picturesOf } from '$server/studio/opening';
import { documentAt, findVersion, realiseDocument } from '$server/studio/versions';
import { error } from '@sveltejs/kit';
import { z } from 'zod';
import type { PageServerLoad } from './$types';

/** Width of the music on paper, in CSS pixels: fits A4 and Letter between their margins. */
const PAPER_WIDTH = 700;
/** Phrases that come with the page, and the time it has to go out before the others are begun, in milliseconds. */
const FIRST = 3;
const HEAD_START = 400;

export const load: PageServerLoad = async ({ params, url }) => {
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
  const document = documentAt(db(), row.id, number);
  const version = realiseDocument(db(), row.pieceId, document);
  const shows = (what: string): boolean => url.searchParams.get(what) !== 'no';
  const options = {
    width: PAPER_WIDTH,
    fingers: shows('fingers'),
    counts: shows('counts'),
    chords: shows('chords'),
  };
  // The first phrases come with the page and the others behind them; without a script the page is asked for whole.
  const { phrases } = version.form;
  const first = url.searchParams.has('whole') ? phrases.length : FIRST;
  const drawn = async (some: typeof phrases) => {
    const pictures = await picturesOf(version, some, options);
    return some.map(({ from, section: at }, i) => {
      const section = version.form.sections[at]!;
      return { from, heading: section.from === from ? section.label : '', svg: pictures[i]! };
    });
  };
  const begun = await drawn(phrases.slice(0, first));
  const others = new Promise((resolve) => setTimeout(resolve, phrases.length > first ? HEAD_START : 0)).then(
    () => drawn(phrases.slice(first)),
  );
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
    key: version.key,
    goalTempo: version.goalTempo,
    measures: version.score.measures.map(({ number, time }) => ({ number, time })),
    form: version.form,
    difficulty: version.difficulty.map((d) => d.score),
    phrases: begun,
    others,
    steps: chunksOf(version.form, version.score.measures).map((chunk) => ({
      chunk,
      steps: stepsOf(chunk).map(({ id, says, share }) => ({ id, says, share })),
    })),
    paper: url.searchParams.get('paper') === 'letter' ? ('letter' as const) : ('a4' as const),
    shown: {
      fingers: options.fingers,
      counts: options.counts,
      chords: options.chords,
      steps: shows('steps'),
    },
  };
};
