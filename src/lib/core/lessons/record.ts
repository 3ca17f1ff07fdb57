/** What a lesson has to say, as it travels from its page to the record: an event, what takes one back, or what is written and set. */
import { z } from 'zod';
import { linesText } from '../plainText';
import { chunkSchema } from './chunkId';
import { heardSchema } from './heard';

/** Named by the page that says it: what arrives twice is kept once. */
const token = z.string().regex(/^[\w-]{12,64}$/);
const assignment = z.string().max(40);
/** When it was done, by the clock of the page: what was kept there while the server was away is not of now. */
const at = z.iso.datetime().optional();

export const stepIdSchema = z.string().regex(/^[a-z0-9-]{1,40}$/i, 'Name the step.');

/** Quarter notes per minute. */
const tempo = z
  .number('Write the tempo as a number.')
  .int('Write the tempo as a whole number.')
  .min(5, 'A tempo is at least 5.')
  .max(400, 'A tempo is at most 400.')
  .nullable();

export const eventSchema = z.object({
  kind: z.literal('event'),
  token,
  assignment,
  chunk: chunkSchema,
  step: stepIdSchema,
  /** Of a step of the teacher's own: the table knows the others. */
  hand: z.enum(['right', 'left', 'both']).nullable().default(null),
  counting: z.boolean().default(false),
  tempo,
  grade: z.union([z.literal(1), z.literal(2), z.literal(3), z.literal(4)]).nullable(),
  /** The ear, where its proposal was accepted unchanged; the learner in the practice room; else the teacher. */
  by: z.enum(['teacher', 'learner', 'ear']).optional(),
  /** What the ear heard of it, where it listened. */
  heard: heardSchema.optional(),
  at,
});

export const withdrawalSchema = z.object({
  kind: z.literal('withdrawal'),
  token,
  assignment,
  /** An event by its number or its token. */
  withdraws: z.union([z.number().int(), token]),
  at,
});

const minutes = z.number().int().min(0).max(600).nullable().optional();

export const weekItemSchema = z.object({
  assignment,
  chunk: z.string().max(40),
  steps: z.array(z.string().max(40)).max(10),
  tempo,
  minutes: z.number().int().min(1).max(180),
  why: z.enum(['next', 'due']),
});

/** What is written and set in a lesson. */
const lessonFieldsSchema = z.object({
  note: linesText().max(4000, 'Keep the lesson notes under 4000 characters.').optional(),
  week: z.array(weekItemSchema).max(20).nullable().optional(),
  minutesSet: minutes,
  practised: minutes,
});
export type LessonFields = z.infer<typeof lessonFieldsSchema>;

/** What is not said stays as it is; `was` is what each field was changed from. */
export const lessonChangeSchema = lessonFieldsSchema.extend({
  kind: z.literal('change'),
  was: lessonFieldsSchema.optional(),
});

/** What a change found in its place: fields that another window had changed meanwhile, as they are there. */
export const lessonConflictSchema = z.object({ message: z.string(), there: lessonFieldsSchema });

export const sentSchema = z.discriminatedUnion('kind', [eventSchema, withdrawalSchema, lessonChangeSchema]);
export type Sent = z.infer<typeof sentSchema>;
export type SentEvent = z.infer<typeof eventSchema>;
export type SentWithdrawal = z.infer<typeof withdrawalSchema>;
export type SentChange = z.infer<typeof lessonChangeSchema>;

/** Longest stretch of practice that is told at once, in seconds. */
const LONGEST = 3600;

/** What a practice room has to say: a step that was done, by the learner's word or the ear's, or how long was practised. */
export const roomSentSchema = z.discriminatedUnion('kind', [
  eventSchema.extend({ by: z.enum(['learner', 'ear']) }),
  z.object({ kind: z.literal('practice'), token, seconds: z.number().int().min(1).max(LONGEST), at }),
]);
export type RoomSent = z.infer<typeof roomSentSchema>;
