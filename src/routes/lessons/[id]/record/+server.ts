import { sentSchema } from '$core/lessons/record';
import { db } from '$server/db';
import { work } from '$server/pool';
import { findAssignment } from '$server/studio/assignments';
import { recordEvent, withdrawEvent } from '$server/studio/events';
import { changeLesson, findLesson } from '$server/studio/lessons';
import { deriveLine } from '$server/studio/progress';
import { json } from '@sveltejs/kit';
import type { RequestHandler } from './$types';

const refused = (status: number, message: string) => json({ message }, { status });

const GONE = 'This lesson isn’t here any more. Look in the trash.';

/** Keeps one thing of a lesson: an event, what takes one back, or what is written and set. */
export const POST: RequestHandler = async ({ params, request }) => {
  const sent = sentSchema.safeParse(await request.json().catch(() => undefined));
  if (!sent.success) return refused(422, sent.error.issues[0]?.message ?? 'It couldn’t be understood.');
  const lesson = findLesson(db(), params.id);
  if (!lesson) return refused(404, GONE);
  const { data } = sent;
  if (data.kind === 'change') {
    const { kind: _kind, ...change } = data;
    const there = changeLesson(db(), lesson.id, change);
    if (!there) return refused(404, GONE);
    return Object.keys(there).length === 0
      ? json({})
      : json({ message: 'This was changed in another window.', there }, { status: 409 });
  }
  const assignment = findAssignment(db(), data.assignment);
  if (assignment?.learnerId !== lesson.learnerId)
    return refused(404, 'This piece isn’t assigned to the student any more.');
  if (data.kind === 'event') recordEvent(db(), data, { lesson: lesson.id });
  else if (!withdrawEvent(db(), data, { lesson: lesson.id }))
    return refused(404, 'That step is no longer checked off.');
  // What lists show is made again behind the answer: it only has to be there when somebody looks.
  void deriveLine(db(), work, assignment.id).catch((error: unknown) =>
    console.error('A line could not be derived:', error),
  );
  return json({});
};
