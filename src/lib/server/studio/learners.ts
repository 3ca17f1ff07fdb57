/** Learners and their lessons. */
import { asc, desc, eq } from 'drizzle-orm';
import { z } from 'zod';
import type { VoiceRange } from '$core/keys/rank';
import { parsePitch } from '$core/score/pitch';
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

/** A recipe that suits a learner's hands, keyboard and level. */
export const recipeFor = (row: LearnerRow, key: string | null): Recipe =>
  recipeSchema.parse({
    level: row.level,
    key,
    texture: null,
    reach: { right: row.reachRight, left: row.reachLeft },
    keyboard: row.keyboard,
    counting: 'numbers',
    pedal: row.hasPedal ? 'harmony' : 'none',
  });
