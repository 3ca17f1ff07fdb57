/** Pieces that were asked for, and what has become of each: a piece, a version, an assignment, a promise with a date. */
import { lineText, linesText } from '$core/plainText';
import type { Day } from '$core/lessons/calendar';
import { and, asc, desc, eq, inArray, isNull } from 'drizzle-orm';
import { z } from 'zod';
import type { Db } from '../db/open';
import { assignment, learner, piece, pieceRequest, version } from '../db/schema';
import { newId, now } from './ids';

/** What is asked in the form. */
export const requestSchema = z.object({
  title: lineText().min(1, 'Enter the title of the piece.').max(120, 'Keep the title under 120 characters.'),
  /** A student's id; empty for somebody else. */
  learner: z.string().max(40),
  askedBy: lineText().max(80, 'Keep the name under 80 characters.'),
  place: lineText().max(300, 'Keep the link or place under 300 characters.'),
  known: linesText().max(2000, 'Keep the notes under 2000 characters.'),
});
type RequestInput = z.infer<typeof requestSchema>;

/** How far a request has come. */
type RequestStage = 'asked' | 'piece' | 'version' | 'assigned' | 'promised';

interface RequestLine {
  readonly id: string;
  readonly title: string;
  /** Who asked. */
  readonly by: string;
  readonly learnerId: string | null;
  readonly day: Day;
  readonly place: string;
  readonly known: string;
  readonly stage: RequestStage;
  readonly piece: { readonly id: string; readonly title: string } | null;
  /** The version to be assigned, and the assignment of whoever asked. */
  readonly version: { readonly id: string; readonly level: number } | null;
  readonly assignment: { readonly id: string; readonly goalDate: Day | null } | null;
  /** Students at the level of one of its versions who don't have the piece. */
  readonly suits: readonly { readonly id: string; readonly name: string; readonly level: number }[];
}

/** Students that are named as suited. */
const SUITED = 6;

export const addRequest = (db: Db, input: RequestInput, day: Day): string => {
  const id = newId();
  const { learner: learnerId, ...rest } = input;
  db.insert(pieceRequest)
    .values({ ...rest, id, day, learnerId: learnerId === '' ? null : learnerId, createdAt: now() })
    .run();
  return id;
};

/** A request has become a piece; with null it has not. False where there is no such request or piece. */
export function becomePiece(db: Db, id: string, pieceId: string | null): boolean {
  const found =
    pieceId === null || db.select({ id: piece.id }).from(piece).where(eq(piece.id, pieceId)).get();
  if (!found) return false;
  return db.update(pieceRequest).set({ pieceId }).where(eq(pieceRequest.id, id)).run().changes > 0;
}

/** Puts a request aside, or takes that back. */
export const closeRequest = (db: Db, id: string, isClosed: boolean): boolean =>
  db
    .update(pieceRequest)
    .set({ closedAt: isClosed ? now() : null })
    .where(eq(pieceRequest.id, id))
    .run().changes > 0;

/** Open requests, the newest first. */
export function listRequests(db: Db): readonly RequestLine[] {
  const rows = db
    .select({ request: pieceRequest, name: learner.name, piece: { id: piece.id, title: piece.title } })
    .from(pieceRequest)
    .leftJoin(learner, and(eq(learner.id, pieceRequest.learnerId), isNull(learner.deletedAt)))
    .leftJoin(piece, and(eq(piece.id, pieceRequest.pieceId), isNull(piece.deletedAt)))
    .where(isNull(pieceRequest.closedAt))
    .orderBy(desc(pieceRequest.day), desc(pieceRequest.createdAt))
    .all();
  const pieces = [...new Set(rows.flatMap((row) => row.piece?.id ?? []))];
  const versions = pieces.length === 0 ? [] : versionsOf(db, pieces);
  const held = pieces.length === 0 ? [] : heldOf(db, pieces);
  const students = db
    .select({ id: learner.id, name: learner.name, level: learner.level })
    .from(learner)
    .where(isNull(learner.deletedAt))
    .orderBy(asc(learner.name))
    .all();
  return rows.map(({ request, name, piece: found }): RequestLine => {
    const own = versions.filter((v) => v.pieceId === found?.id);
    const asked = students.find((s) => s.id === request.learnerId);
    const assigned = held.find((h) => h.pieceId === found?.id && h.learnerId === request.learnerId);
    // For whoever asked the version nearest to their level; else the newest.
    const best = asked
      ? [...own].sort((a, b) => Math.abs(a.level - asked.level) - Math.abs(b.level - asked.level))[0]
      : own[0];
    return {
      id: request.id,
      title: request.title,
      by: name ?? request.askedBy,
      learnerId: asked?.id ?? null,
      day: request.day,
      place: request.place,
      known: request.known,
      stage: assigned
        ? assigned.goalDate
          ? 'promised'
          : 'assigned'
        : best
          ? 'version'
          : found
            ? 'piece'
            : 'asked',
      piece: found,
      version: best ? { id: best.id, level: best.level } : null,
      assignment: assigned ? { id: assigned.id, goalDate: assigned.goalDate } : null,
      suits: students
        .filter(
          (s) =>
            s.id !== request.learnerId &&
            own.some((v) => v.level === s.level) &&
            !held.some((h) => h.pieceId === found?.id && h.learnerId === s.id),
        )
        .slice(0, SUITED),
    };
  });
}

const versionsOf = (db: Db, pieces: readonly string[]) =>
  db
    .select({ id: version.id, pieceId: version.pieceId, level: version.level })
    .from(version)
    .where(and(inArray(version.pieceId, [...pieces]), isNull(version.deletedAt)))
    .orderBy(desc(version.createdAt))
    .all();

const heldOf = (db: Db, pieces: readonly string[]) =>
  db
    .select({
      id: assignment.id,
      learnerId: assignment.learnerId,
      pieceId: version.pieceId,
      goalDate: assignment.goalDate,
    })
    .from(assignment)
    .innerJoin(version, eq(version.id, assignment.versionId))
    .where(and(inArray(version.pieceId, [...pieces]), isNull(version.deletedAt)))
    .all();
