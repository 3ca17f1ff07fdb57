import { db } from '$server/db';
import { analysed } from '$core/version/analysed';
import { sourceSheet } from '$lib/engrave/sourceSheet';
import { findPiece } from '$server/studio/pieces';
import { preparedPiece } from '$server/studio/prepared';
import { error, json } from '@sveltejs/kit';
import { z } from 'zod';
import type { RequestHandler } from './$types';

const querySchema = z.object({
  from: z.coerce.number().int().min(0),
  to: z.coerce.number().int().min(0),
  width: z.coerce.number().int().min(300).max(2000),
});

/** Most measures drawn at once. */
const MOST = 12;

/** A few measures of the source, ready to be engraved, with chord names above them. */
export const GET: RequestHandler = ({ params, url }) => {
  if (!findPiece(db(), params.id)) error(404, 'There is no such piece.');
  const query = querySchema.safeParse(Object.fromEntries(url.searchParams));
  const { score } = preparedPiece(db(), params.id);
  const last = score.measures.length - 1;
  if (!query.success || query.data.from > query.data.to || query.data.from > last)
    error(400, 'These measures are not in the piece.');
  const { from, width } = query.data;
  const to = Math.min(last, query.data.to, from + MOST - 1);
  // Chords as the piece names them, or as they are heard in it.
  const chordSymbols = analysed(score).chords.flatMap(({ onset, chord }) =>
    chord ? [{ onset, chord }] : [],
  );
  return json(sourceSheet({ ...score, chordSymbols }, width, { from, to }));
};
