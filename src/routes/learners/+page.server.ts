import { db } from '$server/db';
import { listLearners } from '$server/studio/learners';
import { latestPieces } from '$server/studio/progress';
import type { PageServerLoad } from './$types';

/** In a large studio one piece stands for a learner. */
const LARGE = 40;

export const load: PageServerLoad = () => {
  const learners = listLearners(db());
  const most = learners.length > LARGE ? 1 : 3;
  const pieces = latestPieces(
    db(),
    learners.map((l) => l.id),
    most,
  );
  return {
    learners: learners.map(({ id, name, weekday, time, level }) => {
      const { lines = [], all = 0 } = pieces.get(id) ?? {};
      return {
        id,
        name,
        weekday,
        time,
        level,
        pieces: lines.map(({ id: of, title, time: metre, next, picture, newMeasures, bothHands }) => ({
          id: of,
          title,
          time: metre,
          next,
          picture,
          newMeasures,
          bothHands,
        })),
        more: all - lines.length,
      };
    }),
  };
};
