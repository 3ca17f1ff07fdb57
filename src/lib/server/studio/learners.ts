/** Learners. */
import { lineText } from '$core/plainText';
import { SCHOOL_IDS } from '$core/counting/schools';
import { and, asc, eq, isNull } from 'drizzle-orm';
import { z } from 'zod';
import { merged } from '$core/edits/merge';
import type { VoiceRange } from '$core/keys/rank';
import { parsePitch } from '$core/theory/pitch';
import { WHOLE } from '$core/decisions/anchor';
import { documentOf, type VersionDocument } from '$core/version/document';
import { recipeSchema, type Recipe } from '$core/version/recipe';
import { atomically, type Db } from '../db/open';
import { learner } from '../db/schema';
import { todayIn } from './clock';
import { newId } from './ids';
import type { Slot } from '$core/lessons/slots';
import { setWeekly, slotsOf } from './slots';

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
  name: lineText().min(1, 'A student needs a name.').max(80, 'Keep the name under 80 letters.'),
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
  minutesADay: z.coerce
    .number('Write the minutes as a number.')
    .int('Write the minutes as a whole number.')
    .min(1, 'Enter at least 1 minute.')
    .max(240, 'Enter at most 240 minutes.')
    .default(15),
  about: lineText().max(400, 'Keep it under 400 letters.').default(''),
});

/** A student of whom nothing but the level is known yet: an octave, 61 keys. */
export const usualLearner = (level: number) => ({
  level,
  reachRight: 8,
  reachLeft: 8,
  keyboard: 61,
  hasPedal: false,
});

export type LearnerInput = z.infer<typeof learnerSchema>;
export type LearnerRow = typeof learner.$inferSelect;

export const listLearners = (db: Db): LearnerRow[] =>
  db.select().from(learner).where(isNull(learner.deletedAt)).orderBy(asc(learner.name)).all();

/** Name and id of every learner. */
export const learnerNames = (db: Db): Pick<LearnerRow, 'id' | 'name'>[] =>
  db
    .select({ id: learner.id, name: learner.name })
    .from(learner)
    .where(isNull(learner.deletedAt))
    .orderBy(asc(learner.name))
    .all();

export const findLearner = (db: Db, id: string): LearnerRow | undefined =>
  db
    .select()
    .from(learner)
    .where(and(eq(learner.id, id), isNull(learner.deletedAt)))
    .get();

/** Adds a learner, with their weekly time where they have one. The id comes back. */
export const addLearner = (db: Db, { weekday, time, ...input }: LearnerInput, since: string): string =>
  atomically(db, (tx) => {
    const id = newId();
    tx.insert(learner)
      .values({ id, since, ...input })
      .run();
    if (weekday !== null) setWeekly(tx, id, { weekday, time: time ?? NOON }, since);
    return id;
  });

/** Where a day is known and no time. */
const NOON = '12:00';

/** What a form shows of a learner. */
export function fieldsOf(db: Db, row: LearnerRow): LearnerInput {
  const { id: _id, since: _since, deletedAt: _trash, ...fields } = row;
  const weekly = weeklyOf(db, row.id);
  return { ...fields, weekday: weekly?.weekday ?? null, time: weekly?.time ?? null } as LearnerInput;
}

/** When a learner usually comes from today on; undefined without a fixed day. */
export const weeklyOf = (db: Db, learnerId: string): Slot | undefined =>
  slotsOf(db, learnerId, todayIn(db))[0];

/** What a form has met: fields that another window has changed otherwise, and the learner as saved. */
interface LearnerMet {
  readonly fields: readonly (keyof LearnerInput)[];
  readonly there: LearnerInput;
}

/**
 * Keeps what a form says of a learner, changed from what it was (`was`). Fields that another window has changed stay; where both
 * changed the same otherwise, nothing is written, and what is there comes back.
 */
export const updateLearner = (
  db: Db,
  id: string,
  input: LearnerInput,
  was: Partial<LearnerInput> = {},
): 'kept' | 'gone' | LearnerMet =>
  atomically(db, (tx) => {
    const row = findLearner(tx, id);
    if (!row) return 'gone';
    const there = fieldsOf(tx, row);
    const { value, conflicts } = merged<LearnerInput>(was, there, input);
    if (conflicts.length > 0) return { fields: conflicts, there };
    const { weekday, time, ...rest } = value;
    tx.update(learner).set(rest).where(eq(learner.id, id)).run();
    setWeekly(tx, id, weekday === null ? null : { weekday, time: time ?? NOON }, todayIn(tx));
    return 'kept';
  });

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
