/** The three steps from an empty studio to a lesson, and where each goes on. */
import { desc, eq, isNull } from 'drizzle-orm';
import type { Db } from '../db/open';
import { assignment, lesson, piece, version } from '../db/schema';

interface FirstSteps {
  /** A piece was added: the newest. */
  readonly piece: string | null;
  /** A version was made of one: the newest. */
  readonly version: string | null;
  /** A version is assigned to somebody: to whom. */
  readonly assigned: string | null;
  /** A lesson was begun: then nobody has to be shown the way. */
  readonly hasLesson: boolean;
}

export function firstSteps(db: Db): FirstSteps {
  const one = <T>(rows: readonly T[]): T | undefined => rows[0];
  const newest = one(
    db
      .select({ id: piece.id })
      .from(piece)
      .where(isNull(piece.deletedAt))
      .orderBy(desc(piece.createdAt))
      .limit(1)
      .all(),
  );
  const made = one(
    db
      .select({ id: version.id })
      .from(version)
      .innerJoin(piece, eq(piece.id, version.pieceId))
      .where(isNull(version.deletedAt))
      .orderBy(desc(version.createdAt))
      .limit(1)
      .all(),
  );
  const given = one(db.select({ learner: assignment.learnerId }).from(assignment).limit(1).all());
  const begun = one(db.select({ id: lesson.id }).from(lesson).limit(1).all());
  return {
    piece: newest?.id ?? null,
    version: made?.id ?? null,
    assigned: given?.learner ?? null,
    hasLesson: begun !== undefined,
  };
}
