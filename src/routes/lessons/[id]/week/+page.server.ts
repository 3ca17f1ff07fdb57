import { gone } from '$server/gone';
import { PRACTICE_DAYS } from '$core/lessons/estimate';
import { daysAfter } from '$core/lessons/calendar';
import { db } from '$server/db';
import { work } from '$server/pool';
import { findLearner } from '$server/studio/learners';
import { findLesson } from '$server/studio/lessons';
import { isGiven } from '$core/lessons/slots';
import { lessonsBetween } from '$server/studio/slots';
import { roomOf } from '$server/studio/room';
import { lessonInWords } from '$server/studio/weekPage';
import { error } from '@sveltejs/kit';
import type { PageServerLoad } from './$types';

/** Days ahead in which the next lesson is looked for. */
const AHEAD = 35;

export const load: PageServerLoad = async ({ params }) => {
  const lesson = findLesson(db(), params.id);
  if (!lesson) error(404, gone('lesson'));
  const learner = findLearner(db(), lesson.learnerId)!;
  const next = lessonsBetween(db(), daysAfter(lesson.date, 1), daysAfter(lesson.date, AHEAD)).find(
    (l) => l.learnerId === learner.id && isGiven(l),
  );
  return {
    lesson: {
      id: lesson.id,
      date: lesson.date,
      note: lesson.note,
      isEnded: lesson.endedAt !== null,
      startedAt: lesson.startedAt,
      endedAt: lesson.endedAt,
      minutesSet: lesson.minutesSet ?? learner.minutesADay,
    },
    learner: { id: learner.id, name: learner.name },
    /** The way into the practice room, where there is one. */
    token: roomOf(db(), learner.id)?.token ?? null,
    next: next ? { day: next.day, time: next.time } : null,
    days: PRACTICE_DAYS,
    ...(await lessonInWords(db(), work, lesson)),
  };
};
