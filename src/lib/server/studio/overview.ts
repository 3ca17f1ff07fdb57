/** The studio as a whole: who moves, who is stuck and at what, what is due and promised, and what can be prepared. */
import { daysBetween, type Day } from '$core/lessons/calendar';
import type { Estimate } from '$core/lessons/estimate';
import { holding, isGained } from '$core/lessons/events';
import { REVIEW } from '$core/lessons/steps';
import type { Slot } from '$core/lessons/slots';
import { and, eq, isNull, or, sql } from 'drizzle-orm';
import type { Db } from '../db/open';
import { assignment, learner, piece, version } from '../db/schema';
import type { Work } from '../pool/work';
import { todayIn } from './clock';
import { eventsInLessons } from './events';
import { listLearners, type LearnerRow } from './learners';
import { latestLessons, type LessonRow } from './lessons';
import { estimates, paceFrom } from './pace';
import {
  historiesOf,
  isWhole,
  piecesOf,
  type AssignmentLine,
  type BrokenLine,
  type NextLine,
} from './progress';
import { usualTimes } from './slots';

/** Where a learner does not get further. */
export interface Stuck {
  readonly title: string;
  readonly assignment: string;
  readonly at: NextLine;
}

export interface LearnerOverview {
  readonly id: string;
  readonly name: string;
  readonly level: number;
  readonly slot: Slot | undefined;
  readonly lines: readonly (AssignmentLine | BrokenLine)[];
  /** What is being learned, the piece in hand first. */
  readonly learning: readonly AssignmentLine[];
  /** Reviews that are due, in all. */
  readonly due: number;
  readonly last: LessonRow | undefined;
  /** Steps that the last lesson brought. */
  readonly gained: number;
  readonly stuck: Stuck | null;
  readonly needsPiece: boolean;
  readonly promised: readonly {
    readonly assignment: string;
    readonly title: string;
    readonly date: Day;
    readonly estimate: Estimate | null;
  }[];
}

/** Minutes of practice that are left in a learner's pieces when it is time to find another. */
const NEARLY_DONE = 60;

/** One learner's pieces and lessons as the overview sees them. */
function overviewOf(
  db: Db,
  row: LearnerRow,
  today: Day,
  lines: readonly (AssignmentLine | BrokenLine)[],
  lessons: readonly LessonRow[],
  gains: ReadonlyMap<string, number>,
  slot: Slot | undefined,
): LearnerOverview {
  const whole = lines.filter(isWhole);
  const learning = whole.filter((l) => l.status === 'learning' || l.status === 'new');
  const [last, before] = lessons;
  const isStuck =
    last !== undefined && before !== undefined && [last, before].every((l) => gains.get(l.id) === 0);
  const inHand = learning.find((l) => l.status === 'learning' && l.next.length > 0);
  const promises = learning.filter((l) => l.goalDate !== null);
  const pace =
    promises.length === 0
      ? undefined
      : paceFrom(
          historiesOf(
            db,
            whole.map((l) => l.id),
          ).values(),
          row.minutesADay,
          today,
        );
  const ready = pace && estimates(lines, pace, row.minutesADay, today);
  return {
    id: row.id,
    name: row.name,
    level: row.level,
    slot,
    lines,
    learning,
    due: whole.reduce((sum, l) => sum + l.reviews.filter((r) => r.due <= today).length, 0),
    last,
    gained: last ? (gains.get(last.id) ?? 0) : 0,
    stuck: isStuck && inHand ? { title: inHand.title, assignment: inHand.id, at: inHand.next[0]! } : null,
    needsPiece: learning.reduce((sum, l) => sum + l.left, 0) < NEARLY_DONE,
    promised: promises.map((l) => ({
      assignment: l.id,
      title: l.title,
      date: l.goalDate!,
      estimate: ready?.get(l.id) ?? null,
    })),
  };
}

/** Steps gained in each of some lessons: 0 where something was tried; no entry where nothing was written down at all. */
function gainedIn(db: Db, lessons: readonly LessonRow[]): ReadonlyMap<string, number> {
  const gains = new Map<string, number>();
  const tried = holding(
    eventsInLessons(
      db,
      lessons.map((l) => l.id),
    ),
  );
  for (const event of tried) {
    if (event.step === REVIEW) continue;
    gains.set(event.lesson, (gains.get(event.lesson) ?? 0) + (isGained(event) ? 1 : 0));
  }
  return gains;
}

/** Every learner; or some, by their ids. */
export async function studioOverview(
  db: Db,
  work: Work,
  only?: readonly string[],
): Promise<LearnerOverview[]> {
  const today = todayIn(db);
  const rows = listLearners(db).filter((l) => !only || only.includes(l.id));
  const ids = rows.map((l) => l.id);
  const lines = await piecesOf(db, work, ids);
  const lessons = latestLessons(db, ids, 2);
  const gains = gainedIn(db, [...lessons.values()].flat());
  const times = usualTimes(db, today);
  return rows.map((row) =>
    overviewOf(db, row, today, lines.get(row.id) ?? [], lessons.get(row.id) ?? [], gains, times.get(row.id)),
  );
}

/** Versions that learners have or were made for and that nobody has signed as they are, the newest first. */
export const unsignedVersions = (
  db: Db,
  most: number,
): { readonly id: string; readonly title: string; readonly level: number; readonly names: string | null }[] =>
  db
    .select({
      id: version.id,
      title: piece.title,
      level: version.level,
      names: sql<string | null>`group_concat(${learner.name}, ', ')`,
    })
    .from(version)
    .innerJoin(piece, eq(piece.id, version.pieceId))
    .leftJoin(assignment, eq(assignment.versionId, version.id))
    .leftJoin(learner, and(eq(learner.id, assignment.learnerId), isNull(learner.deletedAt)))
    .where(
      and(
        isNull(version.deletedAt),
        isNull(piece.deletedAt),
        or(isNull(version.signedEdit), sql`${version.signedEdit} < ${version.edit}`),
      ),
    )
    .groupBy(version.id)
    .orderBy(sql`${version.createdAt} desc`)
    .limit(most)
    .all();

/** Promised pieces of some learners, the nearest date first. */
export const promisesOf = (overview: readonly LearnerOverview[], today: Day) =>
  overview
    .flatMap(({ id, name, promised }) =>
      promised.map((p) => ({ ...p, learner: id, name, days: daysBetween(today, p.date) })),
    )
    .sort((a, b) => a.days - b.days);
