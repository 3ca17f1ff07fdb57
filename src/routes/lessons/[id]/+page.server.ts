import { inMusic } from '$core/score/places';
import { gone } from '$server/gone';
import { daysAfter } from '$core/lessons/calendar';
import { dueOn } from '$core/lessons/reviews';
import { db } from '$server/db';
import { about, work } from '$server/pool';
import { drawn } from '$server/pool/drawn';
import { readable } from '$server/readable';
import { todayIn } from '$server/studio/clock';
import { findLearner } from '$server/studio/learners';
import { endLesson, findLesson, latestLessons } from '$server/studio/lessons';
import { studioLevels } from '$server/studio/levels';
import { preparedKey } from '$server/studio/prepared';
import { findProgress, isWhole, piecesOf, type AssignmentLine } from '$server/studio/progress';
import { lessonsBetween } from '$server/studio/slots';
import { documentAt } from '$server/studio/versions';
import { lessonWish, SHOWN_COOKIE, shownFrom } from '$ui/shown/shown';
import { error, redirect } from '@sveltejs/kit';
import type { Actions, PageServerLoad } from './$types';

/** Reviews of each piece that are offered. */
const REVIEWS = 3;
/** Usual length where no slot says another, in minutes. */
const USUAL = 30;

export const load: PageServerLoad = async ({ params, url, request, cookies }) => {
  const lesson = findLesson(db(), params.id);
  if (!lesson) error(404, gone('lesson'));
  const learner = findLearner(db(), lesson.learnerId)!;
  const today = todayIn(db());
  const lines = (await piecesOf(db(), work, [learner.id])).get(learner.id)!;
  const whole = lines.filter(isWhole);
  const due = whole.map((line) => ({ line, reviews: dueOn(line.reviews, today, REVIEWS) }));
  const asked = url.searchParams.get('piece');
  const open = whole.find((l) => l.id === asked) ?? whole.find((l) => l.status !== 'known') ?? whole[0];
  const found = open && (await readable(open.pieceId, () => findProgress(db(), work, open.id)));
  const shown = lessonWish(shownFrom(cookies.get(SHOWN_COOKIE), request.headers.get('user-agent') ?? ''));
  const planned = lessonsBetween(db(), daysAfter(lesson.date, 0), lesson.date).find(
    (l) => l.learnerId === learner.id,
  );
  return {
    lesson: {
      id: lesson.id,
      date: lesson.date,
      startedAt: lesson.startedAt,
      isEnded: lesson.endedAt !== null,
      endedAt: lesson.endedAt,
      note: lesson.note,
      week: lesson.week,
      minutesSet: lesson.minutesSet,
      practised: lesson.practised,
      minutes: planned?.minutes ?? USUAL,
    },
    learner: {
      id: learner.id,
      name: learner.name,
      keyboard: learner.keyboard,
      minutesADay: learner.minutesADay,
    },
    today,
    last: latestLessons(db(), [learner.id], 1, lesson.date).get(learner.id)?.[0] ?? null,
    pieces: due.map(({ line, reviews }) => ({ ...forTab(line), due: reviews })),
    /** The chunk to open at. */
    chunk: url.searchParams.get('chunk'),
    show: shown,
    /** The instrument that ships for tests and the demo is listened to. */
    simulated: url.searchParams.get('keyboard') === 'simulated',
    /** In the demo, where an instrument is missing, its pretend player can be heard. */
    pretendAt: process.env.KEYPATH_DEMO ? `${url.pathname}?${pretending(url.searchParams)}` : undefined,
    open: found && (await opened(found, url.searchParams.get('chunk'), shown, request)),
  };
};

/** The address's own wishes, with the simulated instrument. */
const pretending = (wishes: URLSearchParams): URLSearchParams =>
  new URLSearchParams([...wishes, ['keyboard', 'simulated']]);

const forTab = ({ id, title, status, next, time }: AssignmentLine) => ({ id, title, status, next, time });

/** Everything of the piece that is open: what its steps follow from, its music, and the pictures that are seen first. */
async function opened(
  { progress, assignment }: NonNullable<Awaited<ReturnType<typeof findProgress>>>,
  chunk: string | null,
  show: ReturnType<typeof lessonWish>,
  request: Request,
) {
  const { pieceId, versionId } = progress;
  const document = await readable(pieceId, () => documentAt(db(), versionId, assignment.edit));
  const first = chunk ?? progress.next[0]?.chunk.id ?? progress.plans[0]?.chunk.id;
  const walk = progress.plans.map((p) => p.chunk).sort(inMusic);
  const at = walk.findIndex((c) => c.id === first);
  const wanted = walk.slice(Math.max(0, at), Math.max(0, at) + 2).map((c) => c.id);
  const asked = about(pieceId, request);
  const sheets = await readable(pieceId, () =>
    work('stretches', { pieceId, document, show, chunks: wanted }, asked),
  );
  const pictures = await readable(pieceId, () =>
    drawn(
      sheets.flatMap((s) => s.sheets),
      asked,
    ),
  );
  let taken = 0;
  const byChunk = sheets.map(
    ({ chunk: id, sheets: own }) => [id, pictures.slice(taken, (taken += own.length))] as const,
  );
  return {
    id: progress.id,
    versionId,
    title: progress.title,
    level: progress.level,
    time: progress.time,
    goal: progress.goalTempo,
    ids: progress.ids,
    numbers: progress.numbers,
    beats: progress.beats,
    form: progress.form,
    difficulty: progress.difficulty,
    plan: progress.plan,
    events: progress.events,
    carried: progress.carried,
    document,
    score: `/pieces/${pieceId}/score?of=${preparedKey(db(), pieceId)}`,
    levels: studioLevels(db()),
    pictures: Object.fromEntries(byChunk),
  };
}

export const actions: Actions = {
  end: ({ params }) => {
    if (!endLesson(db(), params.id, true)) error(404, gone('lesson'));
    redirect(303, `/lessons/${params.id}/week`);
  },
  reopen: ({ params }) => {
    if (!endLesson(db(), params.id, false)) error(404, gone('lesson'));
    redirect(303, `/lessons/${params.id}`);
  },
};
