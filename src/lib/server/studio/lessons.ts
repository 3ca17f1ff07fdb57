/** Lessons: begun, written in while they go on, ended with what is set for the week; or written down afterwards. */
import type { Day } from '$core/lessons/calendar';
import { merged } from '$core/edits/merge';
import type { LessonFields, SentChange } from '$core/lessons/record';
import type { WeekItem } from '$core/lessons/week';
import { and, desc, eq, isNotNull, isNull, lt } from 'drizzle-orm';
import { atomically, type Db } from '../db/open';
import { learner, lesson } from '../db/schema';
import { todayIn } from './clock';
import { newId, now } from './ids';

export type LessonRow = typeof lesson.$inferSelect;

/** The lesson of a learner that goes on today; a new one where none does. Its id comes back. */
export const beginLesson = (db: Db, learnerId: string): string =>
  atomically(db, (tx) => {
    const date = todayIn(tx);
    const open = tx
      .select({ id: lesson.id })
      .from(lesson)
      .where(
        and(
          eq(lesson.learnerId, learnerId),
          eq(lesson.date, date),
          isNotNull(lesson.startedAt),
          isNull(lesson.endedAt),
          isNull(lesson.deletedAt),
        ),
      )
      .get();
    if (open) return open.id;
    const id = newId();
    tx.insert(lesson).values({ id, learnerId, date, note: '', startedAt: now() }).run();
    return id;
  });

export const findLesson = (db: Db, id: string): LessonRow | undefined =>
  db
    .select({ lesson })
    .from(lesson)
    .innerJoin(learner, and(eq(learner.id, lesson.learnerId), isNull(learner.deletedAt)))
    .where(and(eq(lesson.id, id), isNull(lesson.deletedAt)))
    .get()?.lesson;

/**
 * Keeps what is written in a lesson. What another window has changed since `was` stays: undefined where the lesson is gone, else the
 * fields that were not kept, as they are there.
 */
export const changeLesson = (
  db: Db,
  id: string,
  { was = {}, ...change }: Omit<SentChange, 'kind'>,
): LessonFields | undefined =>
  atomically(db, (tx) => {
    const row = findLesson(tx, id);
    if (!row) return undefined;
    const { note, week, minutesSet, practised } = row;
    const now: LessonFields = { note, week: week && mutable(week), minutesSet, practised };
    const wanted = Object.fromEntries(Object.entries(change).filter(([, value]) => value !== undefined));
    const { value, conflicts } = merged<LessonFields>(was, now, wanted);
    tx.update(lesson).set(value).where(eq(lesson.id, id)).run();
    return Object.fromEntries(conflicts.map((field) => [field, now[field]]));
  });

const mutable = (week: readonly WeekItem[]) => week.map((item) => ({ ...item, steps: [...item.steps] }));

/** Ends a lesson, or takes that back. */
export const endLesson = (db: Db, id: string, isEnded: boolean): boolean =>
  db
    .update(lesson)
    .set({ endedAt: isEnded ? now() : null })
    .where(and(eq(lesson.id, id), isNull(lesson.deletedAt)))
    .run().changes > 0;

/** Lessons, the latest first. */
export const lessonsOf = (db: Db, learnerId: string): LessonRow[] =>
  db
    .select()
    .from(lesson)
    .where(and(eq(lesson.learnerId, learnerId), isNull(lesson.deletedAt)))
    .orderBy(desc(lesson.date), desc(lesson.startedAt))
    .all();

/** The latest lessons of each of some learners, at most so many of each, before a day where one is given. */
export function latestLessons(
  db: Db,
  learners: readonly string[],
  most: number,
  before?: Day,
): ReadonlyMap<string, readonly LessonRow[]> {
  // One after the other by the index: ranking the whole table takes longer.
  return new Map(
    learners.map((learnerId) => [
      learnerId,
      db
        .select()
        .from(lesson)
        .where(
          and(
            eq(lesson.learnerId, learnerId),
            isNull(lesson.deletedAt),
            before === undefined ? undefined : lt(lesson.date, before),
          ),
        )
        .orderBy(desc(lesson.date), desc(lesson.startedAt))
        .limit(most)
        .all(),
    ]),
  );
}

/** Keeps what was said in a lesson that was given elsewhere; its id comes back. */
export function addLesson(
  db: Db,
  learnerId: string,
  date: Day,
  text: string,
  more: {
    readonly minutesSet?: number;
    readonly practised?: number;
    readonly week?: readonly WeekItem[];
  } = {},
): string {
  const id = newId();
  db.insert(lesson)
    .values({ id, learnerId, date, note: text, endedAt: `${date}T12:00:00.000Z`, ...more })
    .run();
  return id;
}
