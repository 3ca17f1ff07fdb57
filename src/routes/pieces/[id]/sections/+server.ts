import { sectionStartsSchema } from '$core/analysis/sections';
import { db } from '$server/db';
import { findPiece, setSections } from '$server/studio/pieces';
import { work } from '$server/pool';
import { pieceFacts } from '$server/studio/summaries';
import { json } from '@sveltejs/kit';
import type { RequestHandler } from './$types';

const formSchema = sectionStartsSchema.nullable();

/** Keeps the teacher's own form of a piece; null gives it back to the analysis. */
export const PUT: RequestHandler = async ({ params, request }) => {
  if (!findPiece(db(), params.id))
    return json({ message: 'This piece is no longer there.' }, { status: 404 });
  const sections = formSchema.safeParse(await request.json().catch(() => undefined));
  if (!sections.success)
    return json({ message: sections.error.issues[0]?.message ?? 'This is no form.' }, { status: 400 });
  const { numbers: measures } = await pieceFacts(db(), work, params.id);
  if (sections.data?.some((s) => s.measure >= measures.length))
    return json({ message: `The piece has only ${measures.length} measures.` }, { status: 400 });
  setSections(db(), params.id, sections.data);
  return json({ sections: sections.data });
};
