/** The events of assignments: written once, never changed; what was wrong is withdrawn by another. */
import type { SentEvent, SentWithdrawal } from '$core/lessons/record';
import { heardSchema } from '$core/lessons/heard';
import { playedBy } from '$core/lessons/steps';
import type { Grade, LessonEvent } from '$core/lessons/events';
import { and, asc, desc, eq, inArray, isNotNull, or, sql } from 'drizzle-orm';
import type { AnySQLiteColumn } from 'drizzle-orm/sqlite-core';
import { atomically, type Db } from '../db/open';
import { progressEvent } from '../db/schema';
import { zoneOf } from './clock';
import { dayIn } from '$core/lessons/calendar';
import { now } from './ids';

type Row = typeof progressEvent.$inferSelect;

/** What was heard, where it can still be read. */
const heardIn = ({ heard }: Row): Pick<LessonEvent, 'heard'> => {
  const read = heard === null ? undefined : heardSchema.safeParse(heard);
  return read?.success ? { heard: read.data } : {};
};

const asEvent = (row: Row): LessonEvent => ({
  id: row.id,
  chunk: row.chunk,
  step: row.step,
  hand: row.hand,
  counting: row.counting,
  tempo: row.tempo,
  grade: row.grade as Grade | null,
  by: row.by,
  at: row.createdAt,
  day: row.day,
  withdraws: row.withdraws,
  ...heardIn(row),
  ...(row.token === null ? {} : { token: row.token }),
});

/** All events of an assignment, the oldest first. */
export const eventsOf = (db: Db, assignmentId: string): LessonEvent[] =>
  db
    .select()
    .from(progressEvent)
    .where(eq(progressEvent.assignmentId, assignmentId))
    .orderBy(asc(progressEvent.id))
    .all()
    .map(asEvent);

/** In a query: the id of the last event of the assignment in a column; null where nothing was done. */
export const lastEventOf = (assignmentId: AnySQLiteColumn) =>
  sql<
    number | null
  >`(select max(${progressEvent.id}) from ${progressEvent} where ${progressEvent.assignmentId} = ${assignmentId})`;

/** Those that rest on what was heard, and those that take an event back. */
export const heardEventsOf = (db: Db, assignmentId: string): LessonEvent[] =>
  db
    .select()
    .from(progressEvent)
    .where(
      and(
        eq(progressEvent.assignmentId, assignmentId),
        or(isNotNull(progressEvent.heard), isNotNull(progressEvent.withdraws)),
      ),
    )
    .orderBy(asc(progressEvent.id))
    .all()
    .map(asEvent);

/** The events of some lessons, the oldest first, with the assignment and the token of each. */
export const eventsInLessons = (
  db: Db,
  lessons: readonly string[],
): (LessonEvent & { readonly assignment: string; readonly lesson: string })[] =>
  lessons.length === 0
    ? []
    : db
        .select()
        .from(progressEvent)
        .where(inArray(progressEvent.lessonId, [...lessons]))
        .orderBy(asc(progressEvent.id))
        .all()
        .map((row) => ({
          ...asEvent(row),
          assignment: row.assignmentId,
          lesson: row.lessonId!,
        }));

/** A clock that is ahead of the server's is not believed, nor one that is more than some days behind. */
export function instantOf(at: string | undefined, days = 7): string {
  const instant = at === undefined ? NaN : Date.parse(at);
  const isBelieved = instant <= Date.now() && instant > Date.now() - days * 86_400_000;
  return isBelieved ? new Date(instant).toISOString() : now();
}

/** An event as it is written down; without a token where it comes from a form that is sent once. */
type NewEvent = Omit<SentEvent, 'kind' | 'token' | 'hand' | 'counting'> &
  Partial<Pick<SentEvent, 'token' | 'hand' | 'counting'>>;
type NewWithdrawal = Omit<SentWithdrawal, 'kind' | 'token'> & Partial<Pick<SentWithdrawal, 'token'>>;

interface Kept {
  readonly lesson?: string | null;
  readonly by?: string;
  /** Only where a past is filled in. */
  readonly past?: { readonly at: string; readonly day: string };
}

/** Keeps an event; its number comes back. One whose token is known is kept already. */
export const recordEvent = (db: Db, input: NewEvent, kept: Kept = {}): number =>
  atomically(db, (tx) => {
    const known = input.token && byToken(tx, input.token);
    if (known) return known.id;
    const at = kept.past?.at ?? instantOf(input.at);
    return Number(
      tx
        .insert(progressEvent)
        .values({
          assignmentId: input.assignment,
          lessonId: kept.lesson ?? null,
          chunk: input.chunk,
          step: input.step,
          ...playedBy(input.step, input),
          tempo: input.tempo,
          grade: input.grade,
          by: input.by ?? kept.by ?? 'teacher',
          heard: input.heard ?? null,
          token: input.token ?? null,
          createdAt: at,
          day: kept.past?.day ?? dayIn(zoneOf(tx), new Date(at)),
        })
        .run().lastInsertRowid,
    );
  });

const byToken = (db: Db, token: string): Row | undefined =>
  db.select().from(progressEvent).where(eq(progressEvent.token, token)).get();

/** Takes an event of an assignment back. False where there is no such event. */
export const withdrawEvent = (db: Db, input: NewWithdrawal, kept: Kept = {}): boolean =>
  atomically(db, (tx) => {
    if (input.token && byToken(tx, input.token)) return true;
    const found = tx
      .select()
      .from(progressEvent)
      .where(
        and(
          eq(progressEvent.assignmentId, input.assignment),
          typeof input.withdraws === 'number'
            ? eq(progressEvent.id, input.withdraws)
            : eq(progressEvent.token, input.withdraws),
        ),
      )
      .get();
    if (!found) return false;
    const { chunk, step } = found;
    const at = instantOf(input.at);
    tx.insert(progressEvent)
      .values({
        assignmentId: input.assignment,
        lessonId: kept.lesson ?? found.lessonId,
        chunk,
        step,
        withdraws: found.id,
        by: kept.by ?? 'teacher',
        token: input.token ?? null,
        createdAt: at,
        day: dayIn(zoneOf(tx), new Date(at)),
      })
      .run();
    return true;
  });

/** The last event that says a step of a chunk was done and still holds; undefined where there is none. */
export function lastOfStep(db: Db, assignmentId: string, chunk: string, step: string): number | undefined {
  const rows = db
    .select({ id: progressEvent.id, withdraws: progressEvent.withdraws })
    .from(progressEvent)
    .where(
      and(
        eq(progressEvent.assignmentId, assignmentId),
        eq(progressEvent.chunk, chunk),
        eq(progressEvent.step, step),
      ),
    )
    .orderBy(desc(progressEvent.id))
    .all();
  const gone = new Set<number>();
  for (const { id, withdraws } of rows) {
    if (gone.has(id)) continue;
    if (withdraws === null) return id;
    gone.add(withdraws);
  }
  return undefined;
}
