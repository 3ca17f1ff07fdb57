/** A line to be read at sight: a few measures of a piece that the learner does not have, a level below theirs. */
import { daysBetween, type Day } from '$core/lessons/calendar';
import { and, asc, eq, isNull, notInArray } from 'drizzle-orm';
import type { Db } from '../db/open';
import { assignment, piece, version } from '../db/schema';
import { startFor, type LearnerRow } from './learners';

/** A fixed day from which days are counted, so that each day has another line. */
const FROM = '2020-01-01';

/** The piece of a day, and the document to read it by; undefined where there is no piece that is new to the learner. */
export function sightPiece(db: Db, learner: LearnerRow, day: Day, turn: number) {
  const had = db
    .select({ id: version.pieceId })
    .from(assignment)
    .innerJoin(version, eq(version.id, assignment.versionId))
    .where(eq(assignment.learnerId, learner.id))
    .all()
    .map((row) => row.id);
  const pieces = db
    .select({ id: piece.id, title: piece.title })
    .from(piece)
    .where(and(isNull(piece.deletedAt), notInArray(piece.id, had)))
    .orderBy(asc(piece.id))
    .all();
  const at = daysBetween(FROM, day) + turn;
  const chosen = pieces[at % Math.max(1, pieces.length)];
  return (
    chosen && {
      ...chosen,
      /** Which of its phrases: another one each time round. */
      phrase: Math.floor(at / pieces.length),
      document: startFor(learner, { level: Math.max(1, Math.floor(learner.level) - 1) }),
    }
  );
}
