import { db } from '$server/db';
import { todayIn } from '$server/studio/clock';
import { listGroups } from '$server/studio/groups';
import { studioOverview } from '$server/studio/overview';
import { isWhole } from '$server/studio/progress';
import { work } from '$server/pool';
import type { PageServerLoad } from './$types';

/** In a large studio one piece stands for a learner. */
const LARGE = 40;

export const load: PageServerLoad = async () => {
  const overview = await studioOverview(db(), work);
  const most = overview.length > LARGE ? 1 : 3;
  return {
    today: todayIn(db()),
    classes: listGroups(db()).map(({ id, name, members }) => ({
      id,
      name,
      members: members.map((m) => m.name),
    })),
    learners: overview.map(
      ({ id, name, level, slot, lines, learning, due, last, gained, stuck, promised, needsPiece }) => {
        const shown = [...learning, ...lines.filter((l) => !isWhole(l))];
        return {
          id,
          name,
          level,
          weekday: slot?.weekday ?? null,
          time: slot?.time ?? null,
          pieces: shown.slice(0, most).map((line) => {
            if (!isWhole(line)) return line;
            const { id: of, title, time: metre, next, picture, newMeasures, bothHands } = line;
            return { id: of, title, time: metre, next: next.slice(0, 1), picture, newMeasures, bothHands };
          }),
          more: Math.max(0, shown.length - most),
          known: lines.filter((l) => isWhole(l) && l.status === 'known').length,
          due,
          lastDate: last?.date ?? null,
          gained,
          stuck: stuck && { title: stuck.title, where: stuck.at.where, says: stuck.at.step.says },
          needsPiece,
          promised: promised[0] ?? null,
        };
      },
    ),
  };
};
