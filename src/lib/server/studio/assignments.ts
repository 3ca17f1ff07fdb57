/** Versions given to learners. */
import { merged } from '$core/edits/merge';
import { and, asc, eq, getTableColumns, isNull } from 'drizzle-orm';
import { atomically, type Db } from '../db/open';
import { assignment, learner, piece, version } from '../db/schema';
import { newId, now } from './ids';

export type AssignmentRow = typeof assignment.$inferSelect;

/** An assignment whose learner, version and piece are in use. */
export const findAssignment = (db: Db, id: string): AssignmentRow | undefined =>
  db
    .select(getTableColumns(assignment))
    .from(assignment)
    .innerJoin(version, eq(version.id, assignment.versionId))
    .innerJoin(piece, eq(piece.id, version.pieceId))
    .innerJoin(learner, eq(learner.id, assignment.learnerId))
    .where(
      and(
        eq(assignment.id, id),
        isNull(version.deletedAt),
        isNull(piece.deletedAt),
        isNull(learner.deletedAt),
      ),
    )
    .get();

/** Who has a version, and which edit of it. */
export const holdersOf = (
  db: Db,
  versionId: string,
): { id: string; learnerId: string; name: string; edit: number }[] =>
  db
    .select({ id: assignment.id, learnerId: learner.id, name: learner.name, edit: assignment.edit })
    .from(assignment)
    .innerJoin(learner, eq(assignment.learnerId, learner.id))
    .where(and(eq(assignment.versionId, versionId), isNull(learner.deletedAt)))
    .orderBy(asc(learner.name))
    .all();

/** Names of those who have a version of a piece, by version. */
export function holdersByVersion(db: Db, pieceId: string): ReadonlyMap<string, string[]> {
  const names = new Map<string, string[]>();
  for (const { versionId, name } of db
    .select({ versionId: assignment.versionId, name: learner.name })
    .from(assignment)
    .innerJoin(version, eq(version.id, assignment.versionId))
    .innerJoin(learner, eq(learner.id, assignment.learnerId))
    .where(and(eq(version.pieceId, pieceId), isNull(learner.deletedAt)))
    .orderBy(asc(learner.name))
    .all())
    names.set(versionId, [...(names.get(versionId) ?? []), name]);
  return names;
}

/** Names of those who learn each piece, by the piece. */
export function learnersByPiece(db: Db): ReadonlyMap<string, readonly string[]> {
  const names = new Map<string, string[]>();
  for (const { pieceId, name } of db
    .selectDistinct({ pieceId: version.pieceId, name: learner.name })
    .from(assignment)
    .innerJoin(version, eq(version.id, assignment.versionId))
    .innerJoin(learner, eq(learner.id, assignment.learnerId))
    .where(and(isNull(version.deletedAt), isNull(learner.deletedAt)))
    .orderBy(asc(learner.name))
    .all())
    names.set(pieceId, [...(names.get(pieceId) ?? []), name]);
  return names;
}

/** Gives a version as it is at an edit; giving it again gives that state in place of the one before. What was learned stays. */
export function giveVersion(
  db: Db,
  versionId: string,
  learnerId: string,
  given: { readonly edit: number; readonly goalTempo: number },
): string {
  return atomically(db, (tx) => {
    const known = tx
      .select({ id: assignment.id })
      .from(assignment)
      .where(and(eq(assignment.versionId, versionId), eq(assignment.learnerId, learnerId)))
      .get();
    if (known) {
      tx.update(assignment).set({ edit: given.edit }).where(eq(assignment.id, known.id)).run();
      return known.id;
    }
    const id = newId();
    tx.insert(assignment)
      .values({ id, versionId, learnerId, ...given, goalDate: null, createdAt: now() })
      .run();
    return id;
  });
}

/** What is aimed at: a tempo in quarter notes per minute, and a day. */
type Goal = Pick<AssignmentRow, 'goalTempo' | 'goalDate'>;

/**
 * Changes what is aimed at, from what it was. Where another window has changed the same to something else, what is there comes back
 * and nothing is written.
 */
export const changeGoal = (
  db: Db,
  id: string,
  wanted: Goal,
  was: Partial<Goal> = {},
): 'kept' | 'gone' | { readonly fields: readonly (keyof Goal)[]; readonly there: Goal } =>
  atomically(db, (tx) => {
    const row = findAssignment(tx, id);
    if (!row) return 'gone';
    const now = { goalTempo: row.goalTempo, goalDate: row.goalDate };
    const { value, conflicts } = merged<Goal>(was, now, wanted);
    if (conflicts.length > 0) return { fields: conflicts, there: now };
    tx.update(assignment).set(value).where(eq(assignment.id, id)).run();
    return 'kept';
  });

/** Pauses an assignment since a day; null takes it up again. False where it is gone. */
export const pauseAssignment = (db: Db, id: string, restsSince: string | null): boolean =>
  db.update(assignment).set({ restsSince }).where(eq(assignment.id, id)).run().changes > 0;
