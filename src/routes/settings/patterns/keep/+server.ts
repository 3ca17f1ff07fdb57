import { studioPatternSchema } from '$core/arrange/teacherPattern';
import { db } from '$server/db';
import { keepPattern, MOST_PATTERNS, studioPatterns } from '$server/studio/patterns';
import { json } from '@sveltejs/kit';
import type { RequestHandler } from './$types';

/** Keeps a pattern that was made on a bench; the studio's patterns come back. */
export const POST: RequestHandler = async ({ request }) => {
  const pattern = studioPatternSchema.safeParse(await request.json().catch(() => undefined));
  if (!pattern.success) return json({ message: pattern.error.issues[0]!.message }, { status: 400 });
  if (!keepPattern(db(), pattern.data))
    return json(
      { message: `A studio has at most ${MOST_PATTERNS} patterns. Remove one under Settings, Patterns.` },
      { status: 409 },
    );
  return json({ patterns: studioPatterns(db()) });
};
