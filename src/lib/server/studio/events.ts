/** The events of assignments: written once, never changed; what was wrong is withdrawn by another. */
import { REVIEW, stepFacts } from '$core/lessons/steps';
import type { Grade, LessonEvent } from '$core/lessons/events';
import { and, asc, desc, eq, inArray } from 'drizzle-orm';
import { z } from 'zod';
import { atomically, type Db } from '../db/open';
import { progressEvent } from '../db/schema';
import { zoneOf } from './clock';
import { dayIn } from '$core/lessons/calendar';
import { now } from './ids';

const tokenSchema = z.string().regex(/^[\w-]{12,64}$/);

/** What a page says was done. */
export const eventSchema = z.object({
  /** Names the event: one that arrives twice is kept once. */
  token: tokenSchema,
  assignment: z.string().max(40),
  chunk: z.string().regex(/^[mi]\d{1,5}\.\.[mi]\d{1,5}$/, 'Name the measures.'),
  step: z.string().regex(/^[a-z0-9-]{1,40}$/i, 'Name the step.'),
  hand: z.enum(['right', 'left', 'both']).nullable().optional(),
  counting: z.boolean().optional(),
  tempo: z
    .number('Write the tempo as a number.')
    .int('Write the tempo as a whole number.')
    .min(20, 'A tempo is at least 20.')
    .max(400, 'A tempo is at most 400.')
    .nullable(),
  grade: z.union([z.literal(1), z.literal(2), z.literal(3), z.literal(4)]).nullable(),
  /** When it was done, by the clock of the page: what was kept there while the server was away is not of now. */
  at: z.iso.datetime().optional(),
});
export type EventInput = z.infer<typeof eventSchema>;

/** What takes an event back, by its token or its number. */
export const withdrawalSchema = z.object({
  token: tokenSchema,
  assignment: z.string().max(40),
  withdraws: z.union([z.number().int(), tokenSchema]),
  at: z.iso.datetime().optional(),
});
export type WithdrawalInput = z.infer<typeof withdrawalSchema>;

type Row = typeof progressEvent.$inferSelect;

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

/** A clock that is ahead of the server's is not believed, nor one that is more than a week behind. */
function instantOf(at: string | undefined): string {
  const instant = at === undefined ? NaN : Date.parse(at);
  const isBelieved = instant <= Date.now() && instant > Date.now() - 7 * 86_400_000;
  return isBelieved ? new Date(instant).toISOString() : now();
}

interface Kept {
  readonly lesson?: string | null;
  readonly by?: string;
  /** Only where a past is filled in. */
  readonly past?: { readonly at: string; readonly day: string };
}

/** Keeps an event; its number comes back. One whose token is known is kept already. */
export const recordEvent = (
  db: Db,
  input: Omit<EventInput, 'token'> & { token?: string },
  kept: Kept = {},
): number =>
  atomically(db, (tx) => {
    const known = input.token && byToken(tx, input.token);
    if (known) return known.id;
    const facts = stepFacts(input.step);
    const at = kept.past?.at ?? instantOf(input.at);
    return Number(
      tx
        .insert(progressEvent)
        .values({
          assignmentId: input.assignment,
          lessonId: kept.lesson ?? null,
          chunk: input.chunk,
          step: input.step,
          hand: facts ? facts.hand : input.step === REVIEW ? 'both' : (input.hand ?? null),
          counting: facts ? facts.counting : (input.counting ?? false),
          tempo: input.tempo,
          grade: input.grade,
          by: kept.by ?? 'teacher',
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
export const withdrawEvent = (
  db: Db,
  input: Omit<WithdrawalInput, 'token'> & { token?: string },
  kept: Kept = {},
): boolean =>
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
