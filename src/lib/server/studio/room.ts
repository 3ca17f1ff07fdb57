/** Practice rooms: the link of each student, who is let in by it, what is practised today, and what the room tells. */
import { dueOn } from '$core/lessons/reviews';
import { nameOf, whereIn } from '$core/lessons/inWords';
import { tasksOf, type RoomTask } from '$core/lessons/room';
import type { RoomSent } from '$core/lessons/record';
import { gradeText, holding, isGained, type LessonEvent } from '$core/lessons/events';
import { weekOf, type WeekItem } from '$core/lessons/week';
import { dayIn } from '$core/lessons/calendar';
import { hash, verify } from '@node-rs/argon2';
import { and, desc, eq, gte, isNull, ne, sql } from 'drizzle-orm';
import { createHash, randomBytes } from 'node:crypto';
import { z } from 'zod';
import { atomically, type Db } from '../db/open';
import { assignment, learner, practice, progressEvent, room } from '../db/schema';
import type { Work } from '../pool/work';
import { findAssignment } from './assignments';
import { todayIn, zoneOf } from './clock';
import { instantOf, recordEvent } from './events';
import { now } from './ids';
import { findLearner, type LearnerRow } from './learners';
import { latestLessons } from './lessons';
import { findProgress, isWhole, piecesOf, type Progress } from './progress';

type RoomRow = typeof room.$inferSelect;

/** Bytes of a link: 128 bits. */
const TOKEN_BYTES = 16;
const tokenSchema = z.string().regex(/^[\w-]{22}$/);

export const pinSchema = z
  .string()
  .trim()
  .regex(/^\d{4,8}$/, 'A PIN is 4 to 8 digits.');

/** The room of a student; undefined where there is no link. */
export const roomOf = (db: Db, learnerId: string): RoomRow | undefined =>
  db.select().from(room).where(eq(room.learnerId, learnerId)).get();

/** The whole link of a student's room; null where there is none. */
export function roomLink(db: Db, learnerId: string, origin: string): string | null {
  const row = roomOf(db, learnerId);
  return row ? `${origin}/room/${row.token}` : null;
}

/** The room that a link leads to, and whose it is; undefined where the link was withdrawn, renewed or never was. */
export function roomByToken(
  db: Db,
  token: string,
): { readonly room: RoomRow; readonly learner: LearnerRow } | undefined {
  if (!tokenSchema.safeParse(token).success) return undefined;
  const row = db
    .select({ room })
    .from(room)
    .innerJoin(learner, and(eq(learner.id, room.learnerId), isNull(learner.deletedAt)))
    .where(eq(room.token, token))
    .get()?.room;
  const found = row && findLearner(db, row.learnerId);
  return found && { room: row, learner: found };
}

/** Gives a student a link, in place of the one before; the PIN stays. */
export const renewRoom = (db: Db, learnerId: string): string =>
  atomically(db, (tx) => {
    const token = randomBytes(TOKEN_BYTES).toString('base64url');
    const pin = roomOf(tx, learnerId)?.pin ?? null;
    tx.delete(room).where(eq(room.learnerId, learnerId)).run();
    tx.insert(room).values({ learnerId, token, pin, createdAt: now() }).run();
    return token;
  });

/** Nobody is let in by the link any more. */
export const withdrawRoom = (db: Db, learnerId: string): void => {
  db.delete(room).where(eq(room.learnerId, learnerId)).run();
};

/** Sets the PIN of a room, or with null takes it away. */
export async function setPin(db: Db, learnerId: string, pin: string | null): Promise<void> {
  const kept = pin === null ? null : await hash(pin);
  db.update(room).set({ pin: kept }).where(eq(room.learnerId, learnerId)).run();
}

export const isPin = (row: RoomRow, said: string): Promise<boolean> =>
  row.pin === null ? Promise.resolve(true) : verify(row.pin, said);

/** What a browser keeps that has said the PIN: it holds for this link and this PIN alone. */
export const doorKey = ({ token, pin }: RoomRow): string =>
  createHash('sha256')
    .update(`${token} ${pin ?? ''}`)
    .digest('base64url');

/** Reviews of each piece that are offered. */
const REVIEWS = 3;
/** What one step is worth of a day at most, in minutes. */
const MOST_MINUTES = 8;

/** What a student practises today: the week as it was set last; else what was done today, and what is next and due in the time left. */
export async function tasksToday(db: Db, work: Work, row: LearnerRow): Promise<readonly RoomTask[]> {
  const today = todayIn(db);
  const lines = (await piecesOf(db, work, [row.id])).get(row.id)!.filter(isWhole);
  const set = latestLessons(db, [row.id], 1).get(row.id)?.[0]?.week;
  const wanted = set ? lines.filter((line) => set.some((item) => item.assignment === line.id)) : lines;
  const found = new Map<string, Progress>();
  for (const { id } of wanted) {
    const own = await findProgress(db, work, id);
    if (own) found.set(id, own.progress);
  }
  const inRoom = (item: WeekItem): RoomTask[] => {
    const progress = found.get(item.assignment);
    if (!progress) return [];
    const done = doneOn(progress, today);
    return tasksOf(progress, item, (step) => done.some((e) => e.chunk === item.chunk && e.step === step));
  };
  if (set) return set.flatMap(inRoom);
  const done = [...found.values()].flatMap((progress) =>
    stepsDoneOn(progress, today).flatMap(({ chunk, step, minutes }) =>
      inRoom({ assignment: progress.id, chunk, steps: [step], tempo: null, minutes, why: 'next' }),
    ),
  );
  const left = row.minutesADay - done.reduce((sum, task) => sum + task.minutes, 0);
  const pieces = lines.map((line) => ({
    assignment: line.id,
    next: line.next,
    due: dueOn(line.reviews, today, REVIEWS),
  }));
  return [...done, ...(left < 1 ? [] : weekOf(pieces, left).flatMap(inRoom))];
}

/** What was done on a day in the room. */
const doneOn = ({ events }: Progress, day: string): readonly LessonEvent[] =>
  holding(events).filter((e) => e.day === day && e.by !== 'teacher' && isGained(e));

/** Steps of the plan that were done on a day, each once, with the minutes that they are worth. */
function stepsDoneOn(
  progress: Progress,
  day: string,
): { readonly chunk: string; readonly step: string; readonly minutes: number }[] {
  const once = new Map(doneOn(progress, day).map((e) => [`${e.chunk} ${e.step}`, e] as const));
  return [...once.values()].flatMap(({ chunk, step }) => {
    const planned = progress.plans.find((p) => p.chunk.id === chunk)?.steps.find((s) => s.id === step);
    return planned
      ? [{ chunk, step, minutes: Math.max(1, Math.min(MOST_MINUTES, Math.round(planned.minutes))) }]
      : [];
  });
}

/** Keeps one thing that a room tells, from so many days ago at most. False where it is not about what its student has. */
export function keepFromRoom(db: Db, learnerId: string, sent: RoomSent, days?: number): boolean {
  const at = instantOf(sent.at, days);
  const day = dayIn(zoneOf(db), new Date(at));
  if (sent.kind === 'practice') {
    db.insert(practice)
      .values({ learnerId, seconds: sent.seconds, token: sent.token, day, createdAt: at })
      .onConflictDoNothing()
      .run();
    return true;
  }
  if (findAssignment(db, sent.assignment)?.learnerId !== learnerId) return false;
  recordEvent(db, sent, { past: { at, day } });
  return true;
}

/** Minutes practised in the room by day, since a day. */
export const practisedByDay = (db: Db, learnerId: string, since: string): ReadonlyMap<string, number> =>
  new Map(
    db
      .select({ day: practice.day, seconds: sql<number>`sum(${practice.seconds})` })
      .from(practice)
      .where(and(eq(practice.learnerId, learnerId), gte(practice.day, since)))
      .groupBy(practice.day)
      .all()
      .map(({ day, seconds }) => [day, Math.round(seconds / 60)]),
  );

/** A step that the room told of, in words. */
interface RoomLine {
  readonly id: number;
  readonly day: string;
  readonly title: string;
  readonly where: string;
  readonly step: string;
  /** Who says so. */
  readonly by: 'student' | 'ear';
  readonly grade: string | null;
  readonly tempo: number | null;
  readonly time: RoomTask['time'];
}

/** The newest that a student's room told of, without what was taken back. */
export async function toldByRoom(
  db: Db,
  work: Work,
  learnerId: string,
  most: number,
): Promise<readonly RoomLine[]> {
  const ids = new Set(
    db
      .select({ id: progressEvent.id })
      .from(progressEvent)
      .innerJoin(assignment, eq(assignment.id, progressEvent.assignmentId))
      .where(
        and(
          eq(assignment.learnerId, learnerId),
          isNull(progressEvent.lessonId),
          isNull(progressEvent.withdraws),
          ne(progressEvent.by, 'teacher'),
        ),
      )
      .orderBy(desc(progressEvent.id))
      .limit(most)
      .all()
      .map(({ id }) => id),
  );
  if (ids.size === 0) return [];
  const lines = (await piecesOf(db, work, [learnerId], { resting: true })).get(learnerId)!.filter(isWhole);
  const told: RoomLine[] = [];
  for (const { id } of lines) {
    const progress = (await findProgress(db, work, id))?.progress;
    if (!progress) continue;
    for (const event of holding(progress.events))
      if (ids.has(event.id))
        told.push({
          id: event.id,
          day: event.day,
          title: progress.title,
          where: whereIn(progress, event.chunk),
          step: nameOf(progress, event.step),
          by: event.by === 'ear' ? 'ear' : 'student',
          grade: event.grade === null ? null : gradeText(event.grade),
          tempo: event.tempo,
          time: progress.time,
        });
  }
  return told.sort((a, b) => b.id - a.id);
}
