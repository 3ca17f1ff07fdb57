/** Learners and their lessons. */
import { SCHOOL_IDS } from '$core/counting/schools';
import { and, asc, desc, eq, isNull } from 'drizzle-orm';
import { z } from 'zod';
import type { VoiceRange } from '$core/keys/rank';
import { parsePitch } from '$core/score/pitch';
import { WHOLE } from '$core/decisions/anchor';
import { documentOf, type VersionDocument } from '$core/version/document';
import { recipeSchema, type Recipe } from '$core/version/recipe';
import { atomically, type Db } from '../db/open';
import { learner, lesson } from '../db/schema';
import { contentKey } from './contentKey';
import { newId } from './ids';

const emptyAsNull = (value: unknown): unknown => (value === '' || value === undefined ? null : value);
const pitch = z.preprocess(
  emptyAsNull,
  z
    .string()
    .regex(/^[A-G][#b♯♭]?[0-8]$/, 'Write a note with its octave, such as B3 or F#5.')
    .nullable(),
);
const numberIn = (values: readonly number[]) =>
  z.coerce.number().refine((n) => values.includes(n), 'Choose one of the values offered.');

/** What a form or a file says of a learner. */
export const learnerSchema = z.object({
  name: z.string().trim().min(1, 'A learner needs a name.').max(80, 'Keep the name under 80 letters.'),
  weekday: z.preprocess(emptyAsNull, z.coerce.number().int().min(1).max(7).nullable()),
  time: z.preprocess(
    emptyAsNull,
    z
      .string()
      .regex(/^([01]\d|2[0-3]):[0-5]\d$/, 'Write the time as 16:30.')
      .nullable(),
  ),
  level: z.coerce
    .number()
    .min(1, 'Choose one of the levels offered.')
    .max(12, 'Choose one of the levels offered.')
    .multipleOf(0.5, 'Choose one of the levels offered.'),
  reachRight: numberIn([7, 8, 9, 10]),
  reachLeft: numberIn([7, 8, 9, 10]),
  keyboard: numberIn([49, 61, 76, 88]),
  hasPedal: z.preprocess((v) => v === true || v === 'on' || v === 'true', z.boolean()),
  school: z.preprocess(emptyAsNull, z.enum(SCHOOL_IDS).nullable()),
  voiceLow: pitch,
  voiceHigh: pitch,
});

export type LearnerInput = z.infer<typeof learnerSchema>;
export type LearnerRow = typeof learner.$inferSelect;
export type LessonRow = typeof lesson.$inferSelect;

export const listLearners = (db: Db): LearnerRow[] =>
  db.select().from(learner).where(isNull(learner.deletedAt)).orderBy(asc(learner.name)).all();

/** Name and time of every learner, by time. */
export const learnerNames = (db: Db): Pick<LearnerRow, 'id' | 'name' | 'weekday' | 'time'>[] =>
  db
    .select({ id: learner.id, name: learner.name, weekday: learner.weekday, time: learner.time })
    .from(learner)
    .where(isNull(learner.deletedAt))
    .orderBy(asc(learner.time), asc(learner.name))
    .all();

/** Who comes on a weekday (1 Monday … 7 Sunday), by time. */
export const learnersOn = (db: Db, weekday: number): LearnerRow[] =>
  db
    .select()
    .from(learner)
    .where(and(eq(learner.weekday, weekday), isNull(learner.deletedAt)))
    .orderBy(asc(learner.time), asc(learner.name))
    .all();

/** The latest lesson of each of some learners. */
export function lastLessons(db: Db, learners: readonly string[]): ReadonlyMap<string, LessonRow> {
  const latest = new Map<string, LessonRow>();
  for (const id of learners) {
    const row = db
      .select()
      .from(lesson)
      .where(and(eq(lesson.learnerId, id), isNull(lesson.deletedAt)))
      .orderBy(desc(lesson.date))
      .limit(1)
      .get();
    if (row) latest.set(id, row);
  }
  return latest;
}

export const findLearner = (db: Db, id: string): LearnerRow | undefined =>
  db
    .select()
    .from(learner)
    .where(and(eq(learner.id, id), isNull(learner.deletedAt)))
    .get();

export function addLearner(db: Db, input: LearnerInput, since: string): string {
  const id = newId();
  db.insert(learner)
    .values({ id, since, ...input })
    .run();
  return id;
}

/** Names what is saved of a learner: a form that was filled in over something else carries another name. */
export const learnerState = ({ deletedAt: _trash, ...row }: LearnerRow): string => contentKey(row);

/**
 * Keeps what a form says of a learner, where it was filled in over what is saved now (`was`, from learnerState). Says whether it was
 * kept, whether somebody else was first, or whether the learner is gone.
 */
export const updateLearner = (
  db: Db,
  id: string,
  input: LearnerInput,
  was: string,
): 'kept' | 'changed meanwhile' | 'gone' =>
  atomically(db, (tx) => {
    const row = findLearner(tx, id);
    if (!row) return 'gone';
    if (learnerState(row) !== was) return 'changed meanwhile';
    tx.update(learner).set(input).where(eq(learner.id, id)).run();
    return 'kept';
  });

/** Lessons, the latest first. */
export const lessonsOf = (db: Db, learnerId: string): LessonRow[] =>
  db
    .select()
    .from(lesson)
    .where(and(eq(lesson.learnerId, learnerId), isNull(lesson.deletedAt)))
    .orderBy(desc(lesson.date))
    .all();

/** Keeps what was said in a lesson; its id comes back. */
export function addLesson(db: Db, learnerId: string, date: string, note: string): string {
  const id = newId();
  db.insert(lesson).values({ id, learnerId, date, note }).run();
  return id;
}

/** The range in which a learner sings, where both ends are known. */
export function voiceOf(row: LearnerRow): VoiceRange | null {
  const low = row.voiceLow && parsePitch(row.voiceLow);
  const high = row.voiceHigh && parsePitch(row.voiceHigh);
  return low && high ? { low, high } : null;
}

/** What a version for a learner begins with: hands, keyboard and level; without a pedal, none is written. */
export const startFor = (row: LearnerRow, change: Partial<Recipe> = {}): VersionDocument =>
  documentOf(
    recipeSchema.parse({
      level: row.level,
      reach: { right: row.reachRight, left: row.reachLeft },
      keyboard: row.keyboard,
      ...change,
    }),
    [
      ...(row.hasPedal ? [] : [{ kind: 'pedal', at: WHOLE, value: 'none' } as const]),
      ...(row.school ? [{ kind: 'counting', at: WHOLE, value: row.school } as const] : []),
    ],
  );
