import { db } from '$server/db';
import { lastLessons, learnerNames, learnersOn } from '$server/studio/learners';
import { work } from '$server/pool';
import { latestPieces } from '$server/studio/progress';
import { countPieces } from '$server/studio/summaries';
import type { PageServerLoad } from './$types';

/** Pieces shown of each learner of the day. */
const MOST = 4;

export const load: PageServerLoad = async () => {
  const now = new Date();
  const today = now.getDay() || 7;
  const names = learnerNames(db());
  const ofToday = learnersOn(db(), today);
  const ids = ofToday.map((l) => l.id);
  const pieces = await latestPieces(db(), work, ids, MOST);
  const last = lastLessons(db(), ids);
  return {
    date: now.toLocaleDateString('en-GB', { weekday: 'long', day: 'numeric', month: 'long' }),
    lessons: ofToday.map(({ id, name, time }) => ({
      id,
      name,
      time,
      pieces: pieces.get(id)?.lines ?? [],
      more: Math.max(0, (pieces.get(id)?.all ?? 0) - MOST),
      last: last.get(id) ?? null,
    })),
    week: [1, 2, 3, 4, 5, 6, 7].map((weekday) => ({
      weekday,
      isToday: weekday === today,
      learners: names.filter((l) => l.weekday === weekday).map(({ id, name, time }) => ({ id, name, time })),
    })),
    empty: { learners: names.length === 0, pieces: countPieces(db()) === 0 },
  };
};
