/** Learners and their lessons. */
import { asc, desc, eq } from 'drizzle-orm';
import { z } from 'zod';
import type { VoiceRange } from '$core/keys/rank';
import { parsePitch } from '$core/score/pitch';
import { WHOLE } from '$core/decisions/anchor';
import { documentOf, type VersionDocument } from '$core/version/document';
import { recipeSchema, type Recipe } from '$core/version/recipe';
import type { Db } from '../db/open';
import { learner, lesson } from '../db/schema';
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
  voiceLow: pitch,
  voiceHigh: pitch,
});

export type LearnerInput = z.infer<typeof learnerSchema>;
export type LearnerRow = typeof learner.$inferSelect;
export type LessonRow = typeof lesson.$inferSelect;

export const listLearners = (db: Db): LearnerRow[] =>
  db.select().from(learner).orderBy(asc(learner.name)).all();

/** Name and time of every learner, by time. */
export const learnerNames = (db: Db): Pick<LearnerRow, 'id' | 'name' | 'weekday' | 'time'>[] =>
  db
    .select({ id: learner.id, name: learner.name, weekday: learner.weekday, time: learner.time })
    .from(learner)
    .orderBy(asc(learner.time), asc(learner.name))
    .all();

/** Who comes on a weekday (1 Monday … 7 Sunday), by time. */
export const learnersOn = (db: Db, weekday: number): LearnerRow[] =>
  db
    .select()
    .from(learner)
    .where(eq(learner.weekday, weekday))
    .orderBy(asc(learner.time), asc(learner.name))
    .all();

/** The latest lesson of each of some learners. */
export function lastLessons(db: Db, learners: readonly string[]): ReadonlyMap<string, LessonRow> {
  const latest = new Map<string, LessonRow>();
  for (const id of learners) {
    const row = db
      .select()
      .from(lesson)
      .where(eq(lesson.learnerId, id))
      .orderBy(desc(lesson.date))
      .limit(1)
      .get();
    if (row) latest.set(id, row);
  }
  return latest;
}

export const findLearner = (db: Db, id: string): LearnerRow | undefined =>
  db.select().from(learner).where(eq(learner.id, id)).get();

export function addLearner(db: Db, input: LearnerInput, since: string): string {
  const id = newId();
  db.insert(learner)
    .values({ id, since, ...input })
    .run();
  return id;
}

export const updateLearner = (db: Db, id: string, input: LearnerInput): void =>
  void db.update(learner).set(input).where(eq(learner.id, id)).run();

/** Lessons, the latest first. */
export const lessonsOf = (db: Db, learnerId: string): LessonRow[] =>
  db.select().from(lesson).where(eq(lesson.learnerId, learnerId)).orderBy(desc(lesson.date)).all();

export const addLesson = (db: Db, learnerId: string, date: string, note: string): void =>
  void db.insert(lesson).values({ id: newId(), learnerId, date, note }).run();

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
    row.hasPedal ? [] : [{ kind: 'pedal', at: WHOLE, value: 'none' }],
  );
