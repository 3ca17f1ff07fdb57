import { db } from '$server/db';
import { chordsOf } from '$core/analysis/harmony';
import { withHeardMode } from '$core/analysis/key';
import type { ChordSymbol, Score } from '$core/score/score';
import { sourceSheet } from '$lib/engrave/sourceSheet';
import { findPiece, scoreOf } from '$server/studio/pieces';
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

/** Chords heard in a piece without symbols, by its measures, which never change, and by what its parts are taken to be. */
const heard = new WeakMap<Score['measures'], { roles: string; symbols: ChordSymbol[] }>();

/** A few measures of the source, ready to be engraved, with chord names above them. */
export const GET: RequestHandler = ({ params, url }) => {
  if (!findPiece(db(), params.id)) error(404, 'There is no such piece.');
  const query = querySchema.safeParse(Object.fromEntries(url.searchParams));
  const { score } = scoreOf(db(), params.id);
  const last = score.measures.length - 1;
  if (!query.success || query.data.from > query.data.to || query.data.from > last)
    error(400, 'These measures are not in the piece.');
  const { from, width } = query.data;
  const to = Math.min(last, query.data.to, from + MOST - 1);
  return json(sourceSheet({ ...score, chordSymbols: symbolsOf(score) }, width, { from, to }));
};

function symbolsOf(score: Score): readonly ChordSymbol[] {
  if (score.chordSymbols.length > 0) return score.chordSymbols;
  const roles = JSON.stringify(score.parts.map((p) => [p.id, p.role]));
  const known = heard.get(score.measures);
  if (known?.roles === roles) return known.symbols;
  const symbols = chordsOf(withHeardMode(score)).flatMap(({ onset, chord }) =>
    chord ? [{ onset, chord }] : [],
  );
  heard.set(score.measures, { roles, symbols });
  return symbols;
}
