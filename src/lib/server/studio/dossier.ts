/** Everything that is kept about one learner, to be handed out or taken along. */
import { asc, eq } from 'drizzle-orm';
import type { Db } from '../db/open';
import { assignment, lesson, piece, pieceRequest, version } from '../db/schema';
import { gradeText, holding } from '$core/lessons/events';
import { eventsOf } from './events';
import { findLearner } from './learners';
import { practisedByDay } from './room';
import { slotsOf } from './slots';

/** What is kept of a learner; undefined where there is none. */
export function dossierOf(db: Db, learnerId: string) {
  const found = findLearner(db, learnerId);
  if (!found) return undefined;
  const { deletedAt: _trash, ...learner } = found;
  const pieces = db
    .select({
      id: assignment.id,
      title: piece.title,
      level: version.level,
      goalTempo: assignment.goalTempo,
      goalDate: assignment.goalDate,
      givenAt: assignment.createdAt,
    })
    .from(assignment)
    .innerJoin(version, eq(version.id, assignment.versionId))
    .innerJoin(piece, eq(piece.id, version.pieceId))
    .where(eq(assignment.learnerId, learnerId))
    .orderBy(asc(assignment.createdAt))
    .all();
  return {
    learner,
    /** When they come: weekly times from a day on, until one. */
    times: slotsOf(db, learnerId, learner.since).map(({ weekday, time, minutes, from, until }) => ({
      weekday,
      time,
      minutes,
      from,
      until,
    })),
    lessons: db
      .select({
        date: lesson.date,
        note: lesson.note,
        minutesSet: lesson.minutesSet,
        practised: lesson.practised,
      })
      .from(lesson)
      .where(eq(lesson.learnerId, learnerId))
      .orderBy(asc(lesson.date))
      .all(),
    /** What they asked for. */
    requests: db
      .select({
        title: pieceRequest.title,
        day: pieceRequest.day,
        place: pieceRequest.place,
        known: pieceRequest.known,
      })
      .from(pieceRequest)
      .where(eq(pieceRequest.learnerId, learnerId))
      .orderBy(asc(pieceRequest.day))
      .all(),
    /** Minutes practised in the practice room, by day, as measured. */
    practised: [...practisedByDay(db, learnerId, '')].map(([day, minutes]) => ({ day, minutes })),
    pieces: pieces.map(({ id, ...rest }) => ({ ...rest, steps: holding(eventsOf(db, id)) })),
  };
}

type Dossier = NonNullable<ReturnType<typeof dossierOf>>;

/** The same to be read. */
export function dossierText({ learner, lessons, pieces, practised, requests }: Dossier): string {
  const lines = [
    learner.name,
    `Since ${learner.since}, level ${learner.level}.`,
    `Reaches ${learner.reachRight} white keys right, ${learner.reachLeft} left. Keyboard of ${learner.keyboard} keys, ${learner.hasPedal ? 'with a pedal' : 'no pedal'}.`,
    ...(learner.voiceLow && learner.voiceHigh ? [`Sings ${learner.voiceLow} to ${learner.voiceHigh}.`] : []),
    '',
    'LESSONS',
    ...(lessons.length === 0 ? ['none'] : lessons.map(({ date, note }) => `${date}  ${note}`)),
    '',
    'PRACTICE, AS MEASURED',
    ...(practised.length === 0 ? ['none'] : practised.map(({ day, minutes }) => `${day}  ${minutes} min`)),
    '',
    'ASKED FOR',
    ...(requests.length === 0
      ? ['none']
      : requests.map(({ day, title, place }) => `${day}  ${title}${place ? `, ${place}` : ''}`)),
    '',
    'PIECES',
    ...(pieces.length === 0 ? ['none'] : []),
    ...pieces.flatMap(({ title, level, goalTempo, givenAt, steps }) => [
      `${title}, level ${level}, goal ${goalTempo} quarter notes a minute, given ${givenAt.slice(0, 10)}`,
      ...steps.map(
        ({ day, chunk, step, tempo, grade }) =>
          `  ${day}  measures ${chunk.replace('..', ' to ')}: ${step}${tempo ? ` at ${tempo}` : ''}${grade ? `, ${gradeText(grade)}` : ''}`,
      ),
    ]),
  ];
  return `${lines.join('\n')}\n`;
}
