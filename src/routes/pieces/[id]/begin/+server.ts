import { gone } from '$server/gone';
import { documentOf } from '$core/version/document';
import { DEFAULT_RECIPE } from '$core/version/recipe';
import { db } from '$server/db';
import { about, work } from '$server/pool';
import { drawn } from '$server/pool/drawn';
import { readable } from '$server/readable';
import { studioLevels } from '$server/studio/levels';
import { findPiece, weightOfPiece } from '$server/studio/pieces';
import { isTooLong } from '$server/studio/weight';
import { error, json } from '@sveltejs/kit';
import { z } from 'zod';
import type { RequestHandler } from './$types';

const SHOW = { width: 700, fingers: true, counts: false, chords: true };

/** How the piece begins at a level: a picture of its first phrase. */
export const GET: RequestHandler = async ({ params, url, request }) => {
  const piece = findPiece(db(), params.id);
  if (!piece) error(404, gone('piece'));
  const level = z.coerce.number().safeParse(url.searchParams.get('level'));
  const known = studioLevels(db()).find((l) => l.level === level.data);
  if (!known || isTooLong(weightOfPiece(db(), piece.id))) error(400, 'There’s no picture of this level.');
  const asked = { ...about(piece.id, request), isLater: true };
  const document = documentOf({ ...DEFAULT_RECIPE, level: known.level }, []);
  const { sheet } = await readable(piece.id, () =>
    work('level', { pieceId: piece.id, document, show: SHOW, phrase: 0 }, asked),
  );
  const [svg] = await drawn([sheet], asked);
  return json({ svg });
};
