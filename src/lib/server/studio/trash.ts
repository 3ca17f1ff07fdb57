/** What is put away can be taken back for thirty days; then it is gone for good. */
import { and, desc, eq, isNotNull, isNull, lt } from 'drizzle-orm';
import { z } from 'zod';
import type { Db } from '../db/open';
import { learner, lesson, piece, version } from '../db/schema';
import { levelText } from '$core/arrange/levels';
import { now } from './ids';

/** Days for which the trash keeps a thing. */
export const KEPT_DAYS = 30;

const TABLES = { piece, version, learner, lesson } as const;
type TrashKind = keyof typeof TABLES;

/** What a form names: a thing of a kind. */
export const thingSchema = z.object({
  kind: z.enum(['piece', 'version', 'learner', 'lesson']),
  id: z.string().min(1).max(40),
});

/** Puts a thing in the trash, or takes it out. False where it is not there to be put, or to be taken. */
function mark(db: Db, kind: TrashKind, id: string, deletedAt: string | null): boolean {
  const table = TABLES[kind];
  const isOther = deletedAt === null ? isNotNull(table.deletedAt) : isNull(table.deletedAt);
  return (
    db
      .update(table)
      .set({ deletedAt })
      .where(and(eq(table.id, id), isOther))
      .run().changes > 0
  );
}

/** Puts a thing in the trash; what belongs to it is put away with it. False where it is not there. */
export const discard = (db: Db, kind: TrashKind, id: string): boolean => mark(db, kind, id, now());

/** Takes a thing out of the trash. False where it is not in it. */
export const takeBack = (db: Db, kind: TrashKind, id: string): boolean => mark(db, kind, id, null);

/** Deletes a thing in the trash for good, with everything that belongs to it. False where it is not in it. */
export function deleteForGood(db: Db, kind: TrashKind, id: string): boolean {
  const table = TABLES[kind];
  return (
    db
      .delete(table)
      .where(and(eq(table.id, id), isNotNull(table.deletedAt)))
      .run().changes > 0
  );
}

/** Deletes what has been in the trash for longer than it keeps things. */
export function emptyOld(db: Db, today = Date.now()): void {
  const long = new Date(today - KEPT_DAYS * 86_400_000).toISOString();
  for (const table of Object.values(TABLES)) db.delete(table).where(lt(table.deletedAt, long)).run();
}

interface Trashed {
  readonly kind: TrashKind;
  readonly id: string;
  readonly says: string;
  readonly deletedAt: string;
}

/** What is in the trash, the last first. */
export function listTrash(db: Db): Trashed[] {
  const pieces = db
    .select({ id: piece.id, title: piece.title, deletedAt: piece.deletedAt })
    .from(piece)
    .where(isNotNull(piece.deletedAt))
    .all()
    .map((row) => ({ ...row, kind: 'piece' as const, says: `the piece ${row.title}` }));
  const versions = db
    .select({ id: version.id, title: piece.title, level: version.level, deletedAt: version.deletedAt })
    .from(version)
    .innerJoin(piece, eq(piece.id, version.pieceId))
    .where(isNotNull(version.deletedAt))
    .all()
    .map((row) => ({
      ...row,
      kind: 'version' as const,
      says: `the level ${levelText(row.level)} version of ${row.title}`,
    }));
  const learners = db
    .select({ id: learner.id, name: learner.name, deletedAt: learner.deletedAt })
    .from(learner)
    .where(isNotNull(learner.deletedAt))
    .all()
    .map((row) => ({ ...row, kind: 'learner' as const, says: `the student ${row.name}` }));
  const lessons = db
    .select({ id: lesson.id, name: learner.name, date: lesson.date, deletedAt: lesson.deletedAt })
    .from(lesson)
    .innerJoin(learner, eq(learner.id, lesson.learnerId))
    .where(isNotNull(lesson.deletedAt))
    .orderBy(desc(lesson.deletedAt))
    .all()
    .map((row) => ({ ...row, kind: 'lesson' as const, says: `the lesson of ${row.name} on ${row.date}` }));
  return [...pieces, ...versions, ...learners, ...lessons]
    .map(({ kind, id, says, deletedAt }) => ({ kind, id, says, deletedAt: deletedAt! }))
    .sort((a, b) => b.deletedAt.localeCompare(a.deletedAt));
}
