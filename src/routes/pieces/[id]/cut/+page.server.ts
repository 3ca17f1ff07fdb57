import { db } from '$server/db';
import { formOf, readForm } from '$server/forms';
import { gone } from '$server/gone';
import { pathOf, work } from '$server/pool';
import { once } from '$server/studio/once';
import { findPiece, keepPiece, weightOfPiece } from '$server/studio/pieces';
import { isTooLong, MOST_ON_BENCH } from '$server/studio/weight';
import { error, fail, redirect } from '@sveltejs/kit';
import { z } from 'zod';
import type { Actions, PageServerLoad } from './$types';

const asked = ({ signal, url }: Request) => ({ signal, path: pathOf(url), isLong: true });

export const load: PageServerLoad = ({ params, request }) => {
  const piece = findPiece(db(), params.id);
  if (!piece) error(404, gone('piece'));
  const sections = work('sectionsOfLong', piece.id, asked(request));
  sections.catch(() => undefined);
  const weight = weightOfPiece(db(), piece.id);
  // What is said comes at once; to find the sections the piece is read.
  return {
    piece: { id: piece.id, title: piece.title },
    weight,
    most: MOST_ON_BENCH,
    isTooLong: isTooLong(weight),
    sections,
  };
};

const cutSchema = z.object({
  from: z.coerce.number().int().min(0),
  to: z.coerce.number().int().min(0),
});

export const actions: Actions = {
  /** Makes a piece of a section. */
  default: async ({ params, request }) => {
    const piece = findPiece(db(), params.id);
    if (!piece) error(404, gone('piece'));
    const sent = await formOf(request);
    const form = readForm(sent, cutSchema);
    const file = form.ok && (await work('sectionFile', { pieceId: piece.id, ...form.data }, asked(request)));
    if (!file) return fail(404, { message: 'These measures aren’t in the piece any more.' });
    const { found, ...rest } = file;
    const id = once(db(), sent.get('once'), (tx) => keepPiece(tx, { ...rest, rights: piece.rights }, found));
    redirect(303, `/pieces/${id}`);
  },
};
