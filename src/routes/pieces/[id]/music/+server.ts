import { gone } from '$server/gone';
import { db } from '$server/db';
import { about, work } from '$server/pool';
import { findPiece } from '$server/studio/pieces';
import { error, json } from '@sveltejs/kit';
import { z } from 'zod';
import type { RequestHandler } from './$types';

const querySchema = z.object({
  from: z.coerce.number().int().min(0),
  to: z.coerce.number().int().min(0),
  width: z.coerce.number().int().min(300).max(2000),
});

/** A few measures of the source, ready to be engraved, with chord names above them. */
export const GET: RequestHandler = async ({ params, url, request }) => {
  if (!findPiece(db(), params.id)) error(404, gone('piece'));
  const query = querySchema.safeParse(Object.fromEntries(url.searchParams));
  const sheet =
    query.success &&
    (await work('measures', { pieceId: params.id, ...query.data }, about(params.id, request)));
  if (!sheet) error(400, 'These measures aren’t in the piece.');
  return json(sheet);
};
