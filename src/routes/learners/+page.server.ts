import { db } from '$server/db';
import { listLearners } from '$server/studio/learners';
import { work } from '$server/pool';
import { latestPieces } from '$server/studio/progress';
import type { PageServerLoad } from './$types';

/** In a large studio one piece stands for a learner. */
const LARGE = 40;

export const load: PageServerLoad = async () => {
  const learners = listLearners(db());
  const most = learners.length > LARGE ? 1 : 3;
  const pieces = await latestPieces(
    db(),
    work,
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
        pieces: lines.map((line) => {
          if ('problem' in line) return line;
          const { id: of, title, time: metre, next, picture, newMeasures, bothHands } = line;
          return { id: of, title, time: metre, next, picture, newMeasures, bothHands };
        }),
        more: all - lines.length,
      };
    }),
  };
};
