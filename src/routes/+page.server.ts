import { weekdayOf } from '$core/lessons/calendar';
import { db } from '$server/db';
import { todayIn } from '$server/studio/clock';
import { lastLessons, learnerNames, learnersOn } from '$server/studio/learners';
import { work } from '$server/pool';
import { latestPieces } from '$server/studio/progress';
import { countPieces } from '$server/studio/summaries';
import type { PageServerLoad } from './$types';

/** Pieces shown of each learner of the day. */
const MOST = 4;

export const load: PageServerLoad = async () => {
  const day = todayIn(db());
  const today = weekdayOf(day);
  const names = learnerNames(db());
  const ofToday = learnersOn(db(), today);
  const ids = ofToday.map((l) => l.id);
  const pieces = await latestPieces(db(), work, ids, MOST);
  const last = lastLessons(db(), ids);
  return {
    date: new Date(`${day}T12:00:00Z`).toLocaleDateString('en-GB', {
      timeZone: 'UTC',
      weekday: 'long',
      day: 'numeric',
      month: 'long',
    }),
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
