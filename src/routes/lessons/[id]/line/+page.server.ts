import { gone } from '$server/gone';
import { db } from '$server/db';
import { about, work } from '$server/pool';
import { drawn } from '$server/pool/drawn';
import { readable } from '$server/readable';
import { findLearner } from '$server/studio/learners';
import { findLesson } from '$server/studio/lessons';
import { sightPiece } from '$server/studio/sightLine';
import { LESSON_WIDTH } from '$ui/lesson/width';
import { inRoom, SHOWN_COOKIE, shownFrom } from '$ui/shown/shown';
import { error } from '@sveltejs/kit';
import { z } from 'zod';
import type { PageServerLoad } from './$types';

const turnSchema = z.coerce.number().int().min(0).max(1000).catch(0);

export const load: PageServerLoad = async ({ params, url, request, cookies }) => {
  const lesson = findLesson(db(), params.id);
  if (!lesson) error(404, gone('lesson'));
  const learner = findLearner(db(), lesson.learnerId)!;
  const turn = turnSchema.parse(url.searchParams.get('turn') ?? 0);
  const found = sightPiece(db(), learner, lesson.date, turn);
  if (!found) return { lesson: lesson.id, learner: learner.name, turn, line: null };
  const { id: pieceId, document, title } = found;
  const asked = about(pieceId, request);
  const seen = shownFrom(cookies.get(SHOWN_COOKIE), request.headers.get('user-agent') ?? '');
  // Read, not recalled: no fingers, no counts, no chords.
  const show = {
    width: LESSON_WIDTH,
    fingers: false,
    counts: false,
    chords: false,
    words: 'none' as const,
    pedal: false,
  };
  const { sheet, measures, reading } = await readable(pieceId, () =>
    work('sightLine', { pieceId, document, show: inRoom(show, seen), phrase: found.phrase }, asked),
  );
  const [svg] = await drawn([sheet], asked);
  return {
    lesson: lesson.id,
    learner: learner.name,
    turn,
    line: { title, svg: svg!, reading, level: document.recipe.level, measures },
  };
};
