/** A learner's month in plain words, for parents: what was learned, how much was played, what comes next. */
import { daysAfter, type Day } from '$core/lessons/calendar';
import { holding, isGained, type Grade, type LessonEvent } from '$core/lessons/events';
import { learnedIn, measureStates } from '$core/lessons/progress';
import { REVIEW, stepInSentence } from '$core/lessons/steps';
import { plural } from '$core/plural';
import { tempoText, toBeats } from '$core/score/tempoText';
import { and, eq, gte, isNotNull, lte, min } from 'drizzle-orm';
import type { Db } from '../db/open';
import { assignment, progressEvent } from '../db/schema';
import type { Work } from '../pool/work';
import { monthAsked } from '../monthAsked';
import { todayIn } from './clock';
import type { LearnerRow } from './learners';
import { latestLessons, lessonsOf } from './lessons';
import { findProgress, type Progress } from './progress';

/** "2026-11" */
type Month = string;

const monthBefore = (month: Month): Month => daysAfter(`${month}-01`, -1).slice(0, 7);
const monthAfter = (month: Month): Month => daysAfter(`${month}-28`, 5).slice(0, 7);

interface MonthReport {
  readonly month: Month;
  /** Sentences about the month as a whole. */
  readonly whole: readonly string[];
  readonly pieces: readonly { readonly title: string; readonly sentences: readonly string[] }[];
  readonly next: readonly string[];
  readonly said: readonly { readonly date: Day; readonly note: string }[];
}

const lastDay = (month: Month): Day => daysAfter(`${monthAfter(month)}-01`, -1);

/** New measures with both hands after the events up to a day. */
function bothHandsAt(
  { ids, form, numbers, goalTempo, carried }: Progress,
  events: readonly LessonEvent[],
): number {
  const states = measureStates(form, learnedIn(ids, events, carried), goalTempo);
  return states.filter(
    (s, i) => form.firstSeen[i] === i && numbers[i] !== '0' && (s === 'both' || s === 'goal'),
  ).length;
}

/** How a month went by its middle grade. */
const MONTH_BY_GRADE: Readonly<Record<Grade, string>> = {
  1: 'Most steps still need work.',
  2: 'Most steps went with help.',
  3: 'Most steps went well.',
  4: 'Most steps came easily.',
};

function pieceInWords(progress: Progress, month: Month): string[] {
  const { events, form } = progress;
  const [from, to] = [`${month}-01`, lastDay(month)];
  const during = holding(events).filter((e) => e.day >= from && e.day <= to);
  const until = events.filter((e) => e.day <= to);
  const [before, after] = [
    bothHandsAt(
      progress,
      events.filter((e) => e.day < from),
    ),
    bothHandsAt(progress, until),
  ];
  const tempi = during.filter((e) => e.hand === 'both' && isGained(e)).flatMap((e) => e.tempo ?? []);
  const grades = during.flatMap((e) => e.grade ?? []);
  const reviews = during.filter((e) => e.step === REVIEW).length;
  const isWhole = after >= form.newMeasures;
  return [
    after > before
      ? `${plural(after - before, 'more measure')} hands together this month: ${after} of ${form.newMeasures} now${isWhole ? ', the whole piece' : ''}.`
      : `${after} of ${form.newMeasures} measures hands together, as before; the work went into how they sound.`,
    ...(tempi.length > 0
      ? [
          `The fastest hands together was ${tempoText(progress.time, Math.max(...tempi))}; the goal is ${toBeats(progress.time, progress.goalTempo)}.`,
        ]
      : []),
    ...(grades.length > 0
      ? [MONTH_BY_GRADE[Math.round(grades.reduce<number>((a, b) => a + b, 0) / grades.length) as Grade]]
      : []),
    ...(reviews > 0 ? [`Earlier pieces were reviewed ${plural(reviews, 'time')} to keep them fresh.`] : []),
  ];
}

/** The month of a learner. */
export async function monthReport(
  db: Db,
  work: Work,
  learner: { readonly id: string; readonly name: string },
  month: Month,
): Promise<MonthReport> {
  const [from, to] = [`${month}-01`, lastDay(month)];
  const lessons = lessonsOf(db, learner.id).filter((l) => l.date >= from && l.date <= to);
  const touched = db
    .select({ id: progressEvent.assignmentId, first: min(progressEvent.id) })
    .from(progressEvent)
    .innerJoin(assignment, eq(assignment.id, progressEvent.assignmentId))
    .where(
      and(
        eq(assignment.learnerId, learner.id),
        gte(progressEvent.day, from),
        lte(progressEvent.day, to),
        isNotNull(progressEvent.step),
      ),
    )
    .groupBy(progressEvent.assignmentId)
    .all();
  const progress: Progress[] = [];
  for (const { id } of touched) {
    const found = await findProgress(db, work, id);
    if (found) progress.push(found.progress);
  }
  const practised = lessons.flatMap((l) => l.practised ?? []);
  return {
    month,
    whole: [
      lessons.length === 0 ? 'No lessons this month.' : `${plural(lessons.length, 'lesson')} this month.`,
      ...(practised.length > 0
        ? [
            `${learner.name} practiced about ${Math.round(practised.reduce((a, b) => a + b, 0) / practised.length)} minutes a week.`,
          ]
        : []),
    ],
    pieces: progress.map((p) => ({ title: p.title, sentences: pieceInWords(p, month) })),
    next: progress.flatMap((p) =>
      p.next[0]
        ? [
            `${p.title}, ${p.next[0].chunk.section}, ${p.next[0].where}: ${stepInSentence(p.next[0].step.says)}.`,
          ]
        : [],
    ),
    said: lessons
      .filter((l) => l.note !== '')
      .map(({ date, note }) => ({ date, note }))
      .reverse(),
  };
}

/** The same as a text, to be sent. */
export const monthText = (name: string, title: string, { whole, pieces, next, said }: MonthReport): string =>
  [
    `${name}, ${title}`,
    '',
    ...whole,
    ...pieces.flatMap((p) => ['', p.title, ...p.sentences.map((s) => `  ${s}`)]),
    ...(next.length > 0 ? ['', 'Next', ...next.map((n) => `  ${n}`)] : []),
    ...(said.length > 0 ? ['', 'Lesson notes', ...said.map((s) => `  ${s.date}  ${s.note}`)] : []),
    '',
    'Pause every five to ten minutes. Stop when it hurts; if pain lasts, see a doctor.',
    '',
  ].join('\n');

/** A month of a learner with the months beside it; without one that is asked for the last that had lessons, since a month without is no beginning. */
export async function monthPage(db: Db, work: Work, learner: LearnerRow, url: URL) {
  const today = todayIn(db);
  const latest = latestLessons(db, [learner.id], 1, `${today}~`).get(learner.id)?.[0]?.date ?? today;
  const month = monthAsked(url, latest);
  return {
    report: await monthReport(db, work, learner, month),
    before: monthBefore(month),
    after: month < today.slice(0, 7) ? monthAfter(month) : null,
  };
}
