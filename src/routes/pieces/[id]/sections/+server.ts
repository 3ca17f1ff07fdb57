import { gone } from '$server/gone';
import { sectionStartsSchema } from '$core/analysis/sections';
import { db } from '$server/db';
import { findPiece, setSections } from '$server/studio/pieces';
import { work } from '$server/pool';
import { pieceFacts } from '$server/studio/summaries';
import { json } from '@sveltejs/kit';
import { z } from 'zod';
import type { RequestHandler } from './$types';

/** The form, and what the page had before. */
const changeSchema = z.object({
  sections: sectionStartsSchema.nullable(),
  was: sectionStartsSchema.nullable(),
});

/** Keeps the teacher's own form of a piece; null gives it back to the analysis. */
export const PUT: RequestHandler = async ({ params, request }) => {
  if (!findPiece(db(), params.id)) return json({ message: gone('piece') }, { status: 404 });
  const change = changeSchema.safeParse(await request.json().catch(() => undefined));
  if (!change.success)
    return json({ message: change.error.issues[0]?.message ?? 'This is no form.' }, { status: 400 });
  const { sections, was } = change.data;
  const { numbers: measures } = await pieceFacts(db(), work, params.id);
  if (sections?.some((s) => s.measure >= measures.length))
    return json({ message: `The piece has only ${measures.length} measures.` }, { status: 400 });
  if (!setSections(db(), params.id, sections, was))
    return json(
      {
        message:
          'The sections were changed in another window. You now see the saved sections; make your change again.',
      },
      { status: 409 },
    );
  return json({ sections });
};
