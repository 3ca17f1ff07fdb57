import { roomSentSchema } from '$core/lessons/record';
import { db } from '$server/db';
import { roomAt } from '$server/guard/room';
import { work } from '$server/pool';
import { deriveLine } from '$server/studio/progress';
import { keepFromRoom } from '$server/studio/room';
import { json } from '@sveltejs/kit';
import type { RequestHandler } from './$types';

/** Keeps one thing that a practice room tells: a step that was done, or how long was practised. */
export const POST: RequestHandler = async ({ params, cookies, request }) => {
  const { found, isOpen } = roomAt(params.token, cookies);
  if (!isOpen) return json({ message: 'Enter the PIN first.' }, { status: 403 });
  const sent = roomSentSchema.safeParse(await request.json().catch(() => undefined));
  if (!sent.success)
    return json({ message: sent.error.issues[0]?.message ?? 'It couldn’t be understood.' }, { status: 422 });
  if (!keepFromRoom(db(), found.learner.id, sent.data))
    return json({ message: 'This piece isn’t assigned to you any more.' }, { status: 404 });
  if (sent.data.kind === 'event')
    void deriveLine(db(), work, sent.data.assignment).catch((error: unknown) =>
      console.error('A line could not be derived:', error),
    );
  return json({});
};
