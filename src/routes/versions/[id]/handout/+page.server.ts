import { engrave } from '$lib/engrave/engrave';
import { sheetOf } from '$lib/engrave/sheet';
import { chunksOf, stepsOf } from '$core/lessons/plan';
import { db } from '$server/db';
import { holdersOf } from '$server/studio/assignments';
import { findPiece } from '$server/studio/pieces';
import { findVersion, realiseVersion } from '$server/studio/versions';
import { error } from '@sveltejs/kit';
import type { PageServerLoad } from './$types';

/** Width of the music on paper, in CSS pixels: fits A4 and Letter between their margins. */
const PAPER_WIDTH = 700;

export const load: PageServerLoad = async ({ params, url }) => {
  const row = findVersion(db(), params.id);
  const piece = row && findPiece(db(), row.pieceId);
  if (!row || !piece) error(404, 'There is no such version.');
  const version = realiseVersion(db(), row);
  const shows = (what: string): boolean => url.searchParams.get(what) !== 'no';
  const options = {
    width: PAPER_WIDTH,
    fingers: shows('fingers'),
    counts: shows('counts'),
    chords: shows('chords'),
  };
  const phrases = [];
  for (const phrase of version.form.phrases) {
    const section = version.form.sections[phrase.section]!;
    phrases.push({
      from: phrase.from,
      heading: section.from === phrase.from ? section.label : '',
      svg: await engrave(sheetOf(version, phrase, options)),
    });
  }
  return {
    id: row.id,
    title: piece.title,
    composer: piece.composer,
    rights: piece.rights,
    learners: holdersOf(db(), row.id).map((h) => h.name),
    level: row.recipe.level,
    key: version.key,
    goalTempo: version.goalTempo,
    measures: version.score.measures.map(({ number, time }) => ({ number, time })),
    form: version.form,
    difficulty: version.difficulty.map((d) => d.score),
    phrases,
    steps: chunksOf(version.form).map((chunk) => ({
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
