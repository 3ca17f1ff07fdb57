/** What a learner's own page is made of, besides their pieces: what comes easily, what would suit, and how the weeks went. */
import { STRANDS, type Strand } from '$core/difficulty/strands';
import { daysAfter, mondayOf, type Day } from '$core/lessons/calendar';
import type { History } from '$core/lessons/history';
import { strengthsOf, type Strength } from '$core/lessons/strengths';
import { strandTotals, suiting, suitingText, type StrandTotals } from '$core/lessons/suits';
import { and, asc, eq, gte, isNull, lte, notInArray } from 'drizzle-orm';
import { LRUCache } from 'lru-cache';
import type { Db } from '../db/open';
import { perOpening } from '../db/opening';
import { assignment, piece, version, versionSummary } from '../db/schema';
import type { VersionSummary } from './derive';
import type { LearnerRow } from './learners';
import type { LessonRow } from './lessons';

/** Grades below which a strand is weak. */
const WEAK = 2.5;
/** Pieces that are looked at for what would suit, and said. */
const LOOKED_AT = 40;
const SAID = 3;
/** Weeks that the charts show. */
const WEEKS = 16;

/** Totals of summaries that were looked at, by their text: they are looked at for every learner. */
const totalsKept = perOpening(() => new LRUCache<string, StrandTotals>({ max: 500 }));

function totalsOf(db: Db, summary: string): StrandTotals {
  const totals = totalsKept(db);
  const made = totals.get(summary) ?? strandTotals((JSON.parse(summary) as VersionSummary).strands ?? []);
  totals.set(summary, made);
  return made;
}

interface LearnerSkills {
  readonly strengths: readonly Strength[];
  readonly suits: readonly {
    readonly versionId: string;
    readonly title: string;
    readonly level: number;
    readonly says: string;
  }[];
}

/** What a learner is good at, and what would suit them next, with why. */
export function skillsOf(db: Db, learner: LearnerRow, histories: readonly History[]): LearnerSkills {
  const learned = histories.map((h) => h.learned);
  const strengths = strengthsOf(histories.map((h) => h.graded));
  const weak = new Set(
    strengths.flatMap(({ strand, grade }): Strand[] => (grade !== null && grade < WEAK ? [strand] : [])),
  );
  const candidates = db
    .select({
      id: version.id,
      title: piece.title,
      level: version.level,
      data: versionSummary.data,
    })
    .from(version)
    .innerJoin(piece, eq(piece.id, version.pieceId))
    .innerJoin(
      versionSummary,
      and(eq(versionSummary.versionId, version.id), eq(versionSummary.number, version.edit)),
    )
    .where(
      and(
        isNull(version.deletedAt),
        isNull(piece.deletedAt),
        gte(version.level, learner.level - 1),
        lte(version.level, learner.level + 1),
        notInArray(
          version.pieceId,
          db
            .select({ id: version.pieceId })
            .from(assignment)
            .innerJoin(version, eq(version.id, assignment.versionId))
            .where(eq(assignment.learnerId, learner.id)),
        ),
      ),
    )
    .groupBy(version.pieceId, version.level)
    .orderBy(asc(piece.title), asc(version.level))
    .limit(LOOKED_AT)
    .all()
    .map(({ data, ...row }) => ({ ...row, totals: totalsOf(db, data) }));
  const byId = new Map(candidates.map((c) => [c.id, c]));
  const seen = new Set<string>();
  const suits = suiting(
    {
      measures: learned.reduce((sum, l) => sum + l.measures, 0),
      points: STRANDS.map((_, s) => learned.reduce((sum, l) => sum + (l.points[s] ?? 0), 0)),
    },
    candidates,
    weak,
  ).flatMap((found) => {
    const { title, level } = byId.get(found.id)!;
    if (seen.has(title)) return [];
    seen.add(title);
    return [{ versionId: found.id, title, level, says: suitingText(found) }];
  });
  return { strengths, suits: suits.slice(0, SAID) };
}

interface WeekOfLearner {
  readonly monday: Day;
  /** New measures that came to both hands. */
  readonly measures: number;
  readonly reviews: number;
  /** Minutes that were set for the week, and that were practised as the learner says; null where nobody said. */
  readonly set: number | null;
  readonly practised: number | null;
}

/** The last weeks of a learner, one after the other. */
export function weeksOf(
  histories: Iterable<History>,
  lessons: readonly LessonRow[],
  daysAWeek: number,
  today: Day,
): WeekOfLearner[] {
  const [measures, reviews] = [new Map<Day, number>(), new Map<Day, number>()];
  for (const history of histories) {
    for (const week of history.weeks)
      measures.set(week.monday, (measures.get(week.monday) ?? 0) + week.measures);
    for (const week of history.reviews)
      reviews.set(week.monday, (reviews.get(week.monday) ?? 0) + week.count);
  }
  const last = mondayOf(today);
  return Array.from({ length: WEEKS }, (_, i) => daysAfter(last, -7 * (WEEKS - 1 - i))).map((monday) => {
    const of = lessons.find((l) => mondayOf(l.date) === monday);
    // What was practised for a lesson was practised since the one before.
    const after = lessons.findLast((l) => l.date > daysAfter(monday, 6) && l.date <= daysAfter(monday, 13));
    return {
      monday,
      measures: measures.get(monday) ?? 0,
      reviews: reviews.get(monday) ?? 0,
      set: of?.minutesSet == null ? null : of.minutesSet * daysAWeek,
      practised: after?.practised ?? null,
    };
  });
}

/** By so much of a grade a strand stands out from the middle of all. */
const STANDS_OUT = 0.35;

/** What stands out among the strands that were graded: what comes more easily than the rest, and what is harder; nothing where all go alike. */
export function strengthsShown(strengths: readonly Strength[]): {
  readonly easy: readonly Strand[];
  readonly hard: readonly Strand[];
} {
  const graded = strengths
    .flatMap((s) => (s.grade === null ? [] : [{ ...s, grade: s.grade }]))
    .sort((a, b) => b.grade - a.grade || STRANDS.indexOf(a.strand) - STRANDS.indexOf(b.strand));
  const middle = graded.reduce((sum, s) => sum + s.grade, 0) / Math.max(1, graded.length);
  return {
    easy: graded.filter((s) => s.grade - middle > STANDS_OUT).map((s) => s.strand),
    hard: graded.filter((s) => middle - s.grade > STANDS_OUT).map((s) => s.strand),
  };
}
