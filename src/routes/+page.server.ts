import { db } from '$server/db';
import { lessonsOf, listLearners } from '$server/studio/learners';
import { listPieces } from '$server/studio/pieces';
import { piecesOfLearner } from '$server/studio/progress';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = () => {
  const now = new Date();
  const today = now.getDay() || 7;
  const learners = listLearners(db());
  const byTime = [...learners].sort((a, b) => (a.time ?? '').localeCompare(b.time ?? ''));
  return {
    date: now.toLocaleDateString('en-GB', { weekday: 'long', day: 'numeric', month: 'long' }),
    lessons: byTime
      .filter((l) => l.weekday === today)
      .map((learner) => ({
        ...learner,
        pieces: piecesOfLearner(db(), learner.id),
        last: lessonsOf(db(), learner.id)[0] ?? null,
      })),
    week: [1, 2, 3, 4, 5, 6, 7].map((weekday) => ({
      weekday,
      isToday: weekday === today,
      learners: byTime.filter((l) => l.weekday === weekday).map(({ id, name, time }) => ({ id, name, time })),
    })),
    empty: { learners: learners.length === 0, pieces: listPieces(db()).length === 0 },
  };
};
