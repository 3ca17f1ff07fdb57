import { plural } from '$core/plural';
import { db } from '$server/db';
import { formOf } from '$server/forms';
import { openDoor, roomAt } from '$server/guard/room';
import { Tries } from '$server/guard/tries';
import { about, work } from '$server/pool';
import { drawn } from '$server/pool/drawn';
import { readable } from '$server/readable';
import { findAssignment } from '$server/studio/assignments';
import { todayIn } from '$server/studio/clock';
import { isPin, practisedByDay, tasksToday } from '$server/studio/room';
import { documentAt, findVersion } from '$server/studio/versions';
import type { HeardVersion } from '$ui/sound/sound.svelte';
import { lessonWish, SHOWN_COOKIE, shownFrom } from '$ui/shown/shown';
import { fail } from '@sveltejs/kit';
import { setTimeout } from 'node:timers/promises';
import type { Actions, PageServerLoad } from './$types';

const tries = new Tries();

/** On a small screen smaller than in a lesson: a measure more to a line is worth more there than size. */
const NARROWER = 1.45;
function roomWish(shown: Parameters<typeof lessonWish>[0]): ReturnType<typeof lessonWish> {
  const { width, ...wish } = lessonWish(shown);
  return width === undefined ? wish : { ...wish, width: Math.round(width * NARROWER) };
}

/** What the room plays, hears and shows of a piece; pictures by chunk. */
interface RoomPiece {
  readonly music: HeardVersion;
  readonly pictures: Readonly<Record<string, readonly string[]>>;
}

export const load: PageServerLoad = async ({ params, cookies, request, url }) => {
  const { found, isOpen } = roomAt(params.token, cookies);
  if (!isOpen) return { isOpen: false as const, name: '' };
  const { learner } = found;
  const tasks = await tasksToday(db(), work, learner);
  const shown = shownFrom(cookies.get(SHOWN_COOKIE), request.headers.get('user-agent') ?? '');
  const show = roomWish(shown);
  const pieces: Record<string, RoomPiece> = {};
  for (const id of new Set(tasks.map((task) => task.assignment))) {
    const assigned = findAssignment(db(), id)!;
    const { pieceId } = findVersion(db(), assigned.versionId)!;
    const asked = about(pieceId, request);
    const chunks = [...new Set(tasks.flatMap((t) => (t.assignment === id ? [t.chunk] : [])))];
    const document = await readable(pieceId, () => documentAt(db(), assigned.versionId, assigned.edit));
    const { music, stretches } = await readable(pieceId, () =>
      work('room', { pieceId, document, show, chunks }, asked),
    );
    const drawings = await readable(pieceId, () =>
      drawn(
        stretches.flatMap((s) => s.sheets),
        asked,
      ),
    );
    let taken = 0;
    pieces[id] = {
      music,
      pictures: Object.fromEntries(
        stretches.map(
          ({ chunk, sheets }) => [chunk, drawings.slice(taken, (taken += sheets.length))] as const,
        ),
      ),
    };
  }
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
