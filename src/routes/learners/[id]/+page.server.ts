import { linesText } from '$core/plainText';
import { PRACTICE_DAYS } from '$core/lessons/estimate';
import { heardHistory } from '$core/lessons/heardHistory';
import { dueOn } from '$core/lessons/reviews';
import { db } from '$server/db';
import { formOf, readForm } from '$server/forms';
import { listGroups } from '$server/studio/groups';
import { gone } from '$server/gone';
import { meanwhile, wasIn } from '$server/meanwhile';
import {
  fieldsOf,
  findLearner,
  learnerSchema,
  updateLearner,
  weeklyOf,
  type LearnerInput,
} from '$server/studio/learners';
import { skillsOf, strengthsShown, weeksOf } from '$server/studio/learnerPage';
import { addLesson, beginLesson, lessonsOf } from '$server/studio/lessons';
import { todayIn } from '$server/studio/clock';
import { heardEventsOf } from '$server/studio/events';
import { once } from '$server/studio/once';
import { levelNames } from '$server/studio/levels';
import { estimates, paceFrom } from '$server/studio/pace';
import { work } from '$server/pool';
import { historiesOf, isWhole, piecesOfLearner } from '$server/studio/progress';
import { error, fail, redirect } from '@sveltejs/kit';
import { levelText } from '$core/arrange/levels';
import { SCHOOLS } from '$core/counting/schools';
import { reachName, weekdayName } from '$ui/text';
import { z } from 'zod';
import type { Actions, PageServerLoad } from './$types';

/** Lessons of the log that come with the page, where nothing is looked for; reviews that are named. */
const LESSONS = 12;
const REVIEWS = 3;

export const load: PageServerLoad = async ({ params, url }) => {
  const learner = findLearner(db(), params.id);
  if (!learner) error(404, gone('student'));
  const today = todayIn(db());
  const weekly = weeklyOf(db(), learner.id);
  const pieces = await piecesOfLearner(db(), work, learner.id);
  const histories = historiesOf(
    db(),
    pieces.map((p) => p.id),
  );
  const pace = paceFrom(histories.values(), learner.minutesADay, today);
  const lessons = lessonsOf(db(), learner.id);
  const find = (url.searchParams.get('find') ?? '').trim().slice(0, 80);
  const found =
    find === '' ? lessons : lessons.filter((l) => l.note.toLowerCase().includes(find.toLowerCase()));
  const ready = estimates(pieces, pace, learner.minutesADay, today);
  const whole = pieces.filter(isWhole);
  const { strengths, suits } = skillsOf(db(), learner, [...histories.values()]);
  return {
    learner: { ...learner, weekday: weekly?.weekday ?? null, time: weekly?.time ?? null },
    /** What the form is filled in over. */
    fields: fieldsOf(db(), learner),
    pieces: pieces.map((p) =>
      isWhole(p)
        ? {
            ...p,
            reviews: p.reviews.length,
            /** When something of it is to be played again. */
            again: p.reviews.map((r) => r.due).sort()[0] ?? null,
            estimate: ready.get(p.id) ?? null,
          }
        : p,
    ),
    due: dueOn(
      whole.flatMap((l) => l.reviews.map((r) => ({ ...r, title: l.title, assignment: l.id }))),
      today,
      REVIEWS,
    ),
    /** What the ear heard of each piece. */
    heard: whole.flatMap(({ id, title }) => {
      const history = heardHistory(heardEventsOf(db(), id));
      return history ? [{ id, title, history }] : [];
    }),
    pace,
    weeks: weeksOf(histories.values(), lessons, PRACTICE_DAYS, today),
    tempi: whole
      .map((l) => ({
        title: l.title,
        time: l.time,
        goal: l.goalTempo,
        points: histories.get(l.id)?.tempi ?? [],
      }))
      .filter((t) => t.points.length > 1)
      .slice(0, 4),
    strengths: strengthsShown(strengths),
    isGraded: strengths.some((s) => s.grade !== null),
    suits,
    lessons: found
      .slice(0, LESSONS)
      .map(({ id, date, note, startedAt }) => ({ id, date, note, wasGiven: startedAt !== null })),
    lessonCount: found.length,
    find,
    classes: listGroups(db())
      .filter((g) => g.members.some((m) => m.id === learner.id))
      .map(({ id, name }) => ({ id, name })),
    levels: levelNames(db()),
    today,
  };
};

const lessonSchema = z.object({
  date: z.iso.date('Choose the day of the lesson.'),
  note: linesText().min(1, 'Write lesson notes or practice.').max(2000, 'Keep the note under 2000 letters.'),
});

/** Fields of a learner as sentences call them, and their values in words. */
const FIELD_TEXTS: Readonly<Record<keyof LearnerInput, (of: LearnerInput) => string>> = {
  name: ({ name }) => `name ${name}`,
  weekday: ({ weekday }) => (weekday === null ? 'no fixed day' : `lesson day ${weekdayName(weekday)}`),
  time: ({ time }) => `lesson time ${time ?? 'none'}`,
  level: ({ level }) => `level ${levelText(level)}`,
  reachRight: ({ reachRight }) => `right-hand reach ${reachName(reachRight)}`,
  reachLeft: ({ reachLeft }) => `left-hand reach ${reachName(reachLeft)}`,
  keyboard: ({ keyboard }) => `${keyboard} keys`,
  hasPedal: ({ hasPedal }) => (hasPedal ? 'a pedal' : 'no pedal'),
  school: ({ school }) => `counting system ${school ? SCHOOLS[school].name : 'studio default'}`,
  voiceLow: ({ voiceLow }) => `lowest sung note ${voiceLow ?? 'none'}`,
  voiceHigh: ({ voiceHigh }) => `highest sung note ${voiceHigh ?? 'none'}`,
  minutesADay: ({ minutesADay }) => `${minutesADay} minutes a day`,
  about: ({ about }) => `notes “${about}”`,
};

export const actions: Actions = {
  begin: ({ params }) => {
    if (!findLearner(db(), params.id)) error(404, gone('student'));
    redirect(303, `/lessons/${beginLesson(db(), params.id)}`);
  },
  learner: async ({ params, request }) => {
    const sent = await formOf(request);
    const form = readForm(sent, learnerSchema);
    if (!form.ok) return fail(422, { problems: form.problems, lessonProblems: undefined });
    const was = wasIn(sent, learnerSchema);
    const done = updateLearner(db(), params.id, form.data, was);
    if (done === 'gone') error(404, gone('student'));
    if (done === 'kept') return { kept: true };
    return meanwhile(done, was, (field, there) => FIELD_TEXTS[field](there));
  },
  lesson: async ({ params, request }) => {
    if (!findLearner(db(), params.id)) error(404, gone('student'));
    const sent = await formOf(request);
    const form = readForm(sent, lessonSchema);
    if (!form.ok) return fail(422, { problems: undefined, lessonProblems: form.problems });
    once(db(), sent.get('once'), (tx) => addLesson(tx, params.id, form.data.date, form.data.note));
    return { kept: true };
  },
};
