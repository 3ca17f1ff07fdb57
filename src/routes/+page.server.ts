import { gone } from '$server/gone';
import { daysAfter, timeZones, weekStart } from '$core/lessons/calendar';
import { dueOn } from '$core/lessons/reviews';
import { isGiven } from '$core/lessons/slots';
import { db } from '$server/db';
import { work } from '$server/pool';
import { todayIn, zoneOf } from '$server/studio/clock';
import { formOf } from '$server/forms';
import { firstSteps } from '$server/studio/firstSteps';
import { isLocaleChosen, localeOf, localeOffer } from '$server/studio/locale';
import { findLearner } from '$server/studio/learners';
import { beginLesson } from '$server/studio/lessons';
import { promisesOf, studioOverview, unsignedVersions, type LearnerOverview } from '$server/studio/overview';
import { isWhole } from '$server/studio/progress';
import { lessonsBetween } from '$server/studio/slots';
import { countPieces } from '$server/studio/summaries';
import { error, redirect } from '@sveltejs/kit';
import type { Actions, PageServerLoad } from './$types';

/** Pieces shown of each learner of the day, and reviews. */
const MOST = 3;
/** Lines of each list at the side. */
const LISTED = 5;

const lineOf = ({ due, last, learning, lines, ...learner }: LearnerOverview, today: string) => ({
  id: learner.id,
  name: learner.name,
  pieces: [...learning, ...lines.filter((l) => !isWhole(l))].slice(0, MOST),
  more: Math.max(0, learning.length - MOST),
  due,
  review: dueOn(
    lines.filter(isWhole).flatMap((l) => l.reviews.map((r) => ({ ...r, title: l.title }))),
    today,
    1,
  )[0],
  last: last && {
    date: last.date,
    note: last.note,
    isOpen: last.startedAt !== null && last.endedAt === null,
    id: last.id,
  },
});

export const load: PageServerLoad = async ({ request }) => {
  const today = todayIn(db());
  const monday = weekStart(today, localeOf(db()).firstDay);
  const planned = lessonsBetween(db(), monday, daysAfter(monday, 6));
  const ofToday = planned.filter((l) => l.day === today);
  const overview = await studioOverview(db(), work);
  const byId = new Map(overview.map((o) => [o.id, o]));
  return {
    today,
    lessons: ofToday.map((lesson) => ({
      slot: lesson.slot,
      usual: lesson.usual,
      time: lesson.time,
      minutes: lesson.minutes,
      state: lesson.state,
      because: lesson.because,
      isGiven: isGiven(lesson),
      name: lesson.name,
      groupId: lesson.groupId,
      learner: lesson.learnerId ? lineOf(byId.get(lesson.learnerId)!, today) : null,
    })),
    week: Array.from({ length: 7 }, (_, i) => daysAfter(monday, i)).map((day) => ({
      day,
      lessons: planned
        .filter((l) => l.day === day && isGiven(l))
        .map(({ name, time, learnerId, groupId }) => ({ name, time, learnerId, groupId })),
      not: planned.find((l) => l.day === day && l.state === 'holiday')?.because ?? null,
    })),
    stuck: overview
      .flatMap(({ id, name, stuck }) => (stuck ? [{ id, name, ...stuck }] : []))
      .slice(0, LISTED),
    needPiece: overview
      .filter((o) => o.needsPiece)
      .map(({ id, name, level }) => ({ id, name, level }))
      .slice(0, LISTED),
    promised: promisesOf(overview, today).slice(0, LISTED),
    unsigned: unsignedVersions(db(), LISTED),
    /** Asked at the first start. */
    locale: isLocaleChosen(db())
      ? null
      : {
          ...localeOffer(db(), request.headers.get('accept-language')),
          zone: zoneOf(db()),
          zones: timeZones(),
        },
    steps: firstSteps(db()),
    empty: { learners: overview.length === 0, pieces: countPieces(db()) === 0 },
  };
};

export const actions: Actions = {
  /** Opens the lesson of a learner that goes on today, or begins it. */
  begin: async ({ request }) => {
    const learner = String((await formOf(request)).get('learner') ?? '');
    if (!findLearner(db(), learner)) error(404, gone('student'));
    redirect(303, `/lessons/${beginLesson(db(), learner)}`);
  },
};
