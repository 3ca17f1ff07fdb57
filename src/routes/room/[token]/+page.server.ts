import { plural } from '$core/plural';
import { db } from '$server/db';
import { formOf } from '$server/forms';
import { openDoor, roomAt } from '$server/guard/room';
import { Tries } from '$server/guard/tries';
import { about, work } from '$server/pool';
import { todayIn } from '$server/studio/clock';
import { roomPieces } from '$server/roomPieces';
import { isPin, practisedByDay, tasksToday } from '$server/studio/room';
import { roomWish, SHOWN_COOKIE, shownFrom } from '$ui/shown/shown';
import { fail } from '@sveltejs/kit';
import { setTimeout } from 'node:timers/promises';
import type { Actions, PageServerLoad } from './$types';

const tries = new Tries();

export const load: PageServerLoad = async ({ params, cookies, request, url }) => {
  const { found, isOpen } = roomAt(params.token, cookies);
  if (!isOpen) return { isOpen: false as const, name: '' };
  const { learner } = found;
  const tasks = await tasksToday(db(), work, learner);
  const shown = shownFrom(cookies.get(SHOWN_COOKIE), request.headers.get('user-agent') ?? '');
  const pieces = await roomPieces(db(), tasks, roomWish(shown), (pieceId) => about(pieceId, request));
  const today = todayIn(db());
  return {
    isOpen: true as const,
    name: learner.name,
    today,
    practised: practisedByDay(db(), learner.id, today).get(today) ?? 0,
    tasks,
    pieces,
    /** For a screen so wide the music is drawn. */
    room: shown.room,
    /** The instrument that ships for tests and the demo is listened to. */
    simulated: url.searchParams.get('keyboard') === 'simulated',
  };
};

export const actions: Actions = {
  enter: async (event) => {
    const { found } = roomAt(event.params.token, event.cookies);
    const from = event.getClientAddress();
    const said = String((await formOf(event.request)).get('pin') ?? '');
    const { wait, isTooMany } = await tries.turn(from);
    if (isTooMany)
      return fail(429, {
        message: `Too many wrong PINs. Try again in ${plural(Math.ceil(wait / 1000), 'second')}.`,
      });
    await setTimeout(wait);
    if (!(await isPin(found.room, said.trim().slice(0, 20))))
      return fail(403, { message: 'That PIN isn’t right. Try again.' });
    await tries.right(from);
    openDoor(found, event);
    return {};
  },
};
