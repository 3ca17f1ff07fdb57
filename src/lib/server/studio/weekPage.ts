/** A lesson afterwards: what was done and how it went, what was said, and what is set for the week, in words. */
import { gradeText, holding, type Grade } from '$core/lessons/events';
import type { TimeSignature } from '$core/score/score';
import { nameOf, whereIn } from '$core/lessons/inWords';
import { weekOf, type WeekItem } from '$core/lessons/week';
import type { Db } from '../db/open';
import type { Work } from '../pool/work';
import { eventsInLessons } from './events';
import type { LessonRow } from './lessons';
import { findProgress, type Progress } from './progress';

/** A line of what was done. */
interface DoneLine {
  readonly title: string;
  readonly time: TimeSignature;
  readonly where: string;
  readonly step: string;
  readonly tempo: number | null;
  readonly grade: string | null;
}

interface SetLine {
  readonly assignment: string;
  readonly versionId: string;
  readonly title: string;
  readonly time: TimeSignature;
  readonly chunk: string;
  readonly where: string;
  readonly steps: readonly string[];
  readonly tempo: number | null;
  readonly minutes: number;
  readonly why: 'next' | 'due';
}

/** How far each of some assignments is, by its id; those that are gone are not there. */
async function progressOfAll(
  db: Db,
  work: Work,
  assignments: readonly string[],
): Promise<ReadonlyMap<string, Progress>> {
  const found = new Map<string, Progress>();
  for (const id of new Set(assignments)) {
    const one = await findProgress(db, work, id);
    if (one) found.set(id, one.progress);
  }
  return found;
}

const setLines = (week: readonly WeekItem[], found: ReadonlyMap<string, Progress>): SetLine[] =>
  week.flatMap((item) => {
    const progress = found.get(item.assignment);
    return progress
      ? [
          {
            assignment: item.assignment,
            versionId: progress.versionId,
            title: progress.title,
            time: progress.time,
            chunk: item.chunk,
            where: whereIn(progress, item.chunk),
            steps: item.steps.map((s) => nameOf(progress, s)),
            tempo: item.tempo,
            minutes: item.minutes,
            why: item.why,
          },
        ]
      : [];
  });

/** What a learner has to practise in a piece: the week as it was set where the piece is in it, otherwise what is next in the piece itself. */
export async function setFor(
  db: Db,
  work: Work,
  assignment: string,
  set: readonly WeekItem[],
  minutesADay: number,
): Promise<readonly SetLine[]> {
  const found = await progressOfAll(db, work, [assignment, ...set.map((i) => i.assignment)]);
  const isInIt = set.some((i) => i.assignment === assignment);
  const next = found.get(assignment)?.next ?? [];
  return setLines(isInIt ? set : weekOf([{ assignment, next, due: [] }], minutesADay), found);
}

/** What a lesson brought and what it set. */
export async function lessonInWords(
  db: Db,
  work: Work,
  lesson: LessonRow,
): Promise<{ readonly done: readonly DoneLine[]; readonly set: readonly SetLine[] }> {
  const events = holding(eventsInLessons(db, [lesson.id]));
  const week = lesson.week ?? [];
  const found = await progressOfAll(
    db,
    work,
    [...events, ...week].map((of) => of.assignment),
  );
  return {
    done: events.flatMap((event) => {
      const progress = found.get(event.assignment);
      return progress
        ? [
            {
              title: progress.title,
              time: progress.time,
              where: whereIn(progress, event.chunk),
              step: nameOf(progress, event.step),
              tempo: event.tempo,
              grade: event.grade === null ? null : gradeText(event.grade as Grade),
            },
          ]
        : [];
    }),
    set: setLines(week, found),
  };
}
