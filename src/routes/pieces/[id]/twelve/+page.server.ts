import { gone } from '$server/gone';
import { db } from '$server/db';
import { findPiece } from '$server/studio/pieces';
import { about, work } from '$server/pool';
import { readable } from '$server/readable';
import { error } from '@sveltejs/kit';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ params, request }) => {
  const piece = findPiece(db(), params.id);
  if (!piece) error(404, gone('piece'));
  return {
    piece: { id: piece.id, title: piece.title, rights: piece.rights },
    charts: await readable(piece.id, () => work('charts', piece.id, about(piece.id, request))),
  };
};
