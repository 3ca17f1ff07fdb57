/** The practice room of a student as one file, for where there is no network. */
import { db } from '$server/db';
import { download } from '$server/download';
import { gone } from '$server/gone';
import { homeFile } from '$server/home';
import { about, work } from '$server/pool';
import { findLearner } from '$server/studio/learners';
import { localeOf } from '$server/studio/locale';
import { tasksToday } from '$server/studio/room';
import { roomPieces } from '$server/roomPieces';
import { HANDHELD, roomWish, SHOWN_COOKIE, shownFrom } from '$ui/shown/shown';
import { error } from '@sveltejs/kit';
import type { RequestHandler } from './$types';

export const GET: RequestHandler = async ({ params, cookies, request }) => {
  const learner = findLearner(db(), params.id) ?? error(404, gone('student'));
  const tasks = await tasksToday(db(), work, learner);
  const shown = shownFrom(cookies.get(SHOWN_COOKIE));
  const drawnIn = (room: number) =>
    roomPieces(db(), tasks, roomWish({ ...shown, room }), (pieceId) => about(pieceId, request));
  const [wide, narrow] = [await drawnIn(0), await drawnIn(HANDHELD)];
  const file = await homeFile({
    id: learner.id,
    name: learner.name,
    locale: localeOf(db()),
    tasks: tasks.map((task) => ({ ...task, isDone: false })),
    pieces: Object.fromEntries(
      Object.entries(wide).map(([id, { music, pictures }]) => [
        id,
        { music, wide: pictures, narrow: narrow[id]!.pictures },
      ]),
    ),
  });
  return download(`${learner.name}, practice room.html`, 'text/html; charset=utf-8', file);
};
