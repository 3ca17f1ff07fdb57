/** Where a learner stands in each piece: computed from the events over what was given, never stored as truth. */
import type { Day } from '$core/lessons/calendar';
import { placesText } from '$core/score/places';
import { placesOf } from '$core/lessons/chunkId';
import { minutesLeft } from '$core/lessons/estimate';
import { carriedFrom, carriedText } from '$core/lessons/carried';
import { isGained, type LessonEvent } from '$core/lessons/events';
import { historyOf, type History } from '$core/lessons/history';
import { pathPicture, type PathPicture } from '$core/lessons/picture';
import type { Chunk, Plan } from '$core/lessons/plan';
import { learnedIn, measureStates, nextSteps, planState, type NextStep } from '$core/lessons/progress';
import { reviewsOf, type Review } from '$core/lessons/reviews';
import type { StepHand } from '$core/lessons/steps';
import { and, desc, eq, inArray, isNull } from 'drizzle-orm';
import type { Db } from '../db/open';
import { perOpening } from '../db/opening';
import { assignment, assignmentSummary, piece, version } from '../db/schema';
import { LRUCache } from 'lru-cache';
import { findAssignment, type AssignmentRow } from './assignments';
import { contentKey } from './contentKey';
import { derivedRows } from './derivedRows';
import { earlierOf, givenBefore, type Earlier } from './earlierVersions';
import { eventsOf, lastEventOf } from './events';
import { planOf, plannedChunks } from './plans';
import { preparedKeys } from './prepared';
import type { Work } from '../pool/work';
import type { VersionSummary } from './derive';
import { versionBasis, versionSummaries, versionSummaryOf } from './summaries';
import { findVersion } from './versions';

/** Something to practise, as a line says it. */
export interface NextLine {
  readonly chunk: Pick<Chunk, 'id' | 'section' | 'name'>;
  /** "measures 1 to 4" */
  readonly where: string;
  readonly step: {
    readonly id: string;
    readonly says: string;
    readonly hand: StepHand | null;
    readonly minutes: number;
  };
  readonly tempo: number | null;
}

/** Something that is kept alive, as a line says it. */
export interface ReviewLine extends Review {
  /** "measures 1 to 4" */
  readonly where: string;
}

/** How an assignment stands. */
export type AssignmentStatus = 'new' | 'learning' | 'known' | 'resting';

/** What a list shows of one assignment. */
export interface AssignmentLine {
  readonly id: string;
  readonly versionId: string;
  readonly pieceId: string;
  readonly learnerId: string;
  readonly title: string;
  readonly level: number;
  readonly key: VersionSummary['key'];
  readonly time: VersionSummary['time'];
  readonly goalTempo: number;
  readonly goalDate: Day | null;
  readonly status: AssignmentStatus;
  /** When something was last done in it; null where nothing was. */
  readonly lastDay: Day | null;
  readonly reachedTempo: number | null;
  readonly newMeasures: number;
  /** New measures with both hands. */
  readonly bothHands: number;
  /** What is next, nearest first: a few steps; none where all are done. */
  readonly next: readonly NextLine[];
  /** Minutes of a usual pace that are left. */
  readonly left: number;
  readonly reviews: readonly ReviewLine[];
  readonly picture: PathPicture;
}

/** An assignment whose version cannot be shown, and why. */
export interface BrokenLine {
  readonly id: string;
  readonly learnerId: string;
  readonly title: string;
  readonly problem: string;
}

export const isWhole = (line: AssignmentLine | BrokenLine): line is AssignmentLine => !('problem' in line);

/** Steps that a line looks ahead. */
const AHEAD = 4;

/** Everything that follows from a version, a plan, the events of an assignment and what is known from earlier versions. */
function computed(
  summary: VersionSummary,
  { goalTempo, plan }: { readonly goalTempo: number; readonly plan: Plan | null },
  events: readonly LessonEvent[],
  earlier: readonly Earlier[],
) {
  const { form, ids, difficulty, numbers } = summary;
  const chunks = plannedChunks(plan, summary, goalTempo);
  const carriedOver = earlier.map(({ versionId, summary: first, events: done }) => ({
    versionId,
    events: carriedFrom(done, first, summary),
  }));
  const carried = carriedOver.flatMap((c) => c.events);
  const own = learnedIn(ids, events);
  const learned = carried.length === 0 ? own : learnedIn(ids, events, carried);
  const states = measureStates(form, learned, goalTempo);
  const plans = planState(chunks, learned);
  // A pickup is not counted as a measure.
  const isNew = (i: number): boolean => form.firstSeen[i] === i && numbers[i] !== '0';
  return {
    chunks,
    /** What was done in this version alone. */
    own,
    carried,
    known: carriedOver.flatMap(({ versionId, events: known }) =>
      known.length > 0 ? [{ version: versionId, where: carriedText(known, ids, numbers) }] : [],
    ),
    learned,
    states,
    plans,
    reachedTempo:
      Math.max(0, ...learned.events.filter((e) => e.hand !== null && isGained(e)).map((e) => e.tempo ?? 0)) ||
      null,
    bothHands: states.filter((s, i) => isNew(i) && (s === 'both' || s === 'goal')).length,
    isNew,
    isKnown: states.every((s, i) => !isNew(i) || s === 'goal'),
    next: nextSteps(plans, AHEAD).map(({ chunk, step, tempo }: NextStep): NextLine => ({
      chunk: { id: chunk.id, section: chunk.section, name: chunk.name },
      where: placesText(numbers, chunk),
      step: { id: step.id, says: step.says, hand: step.hand, minutes: step.minutes },
      tempo,
    })),
    left: minutesLeft(plans),
    reviews: reviewsOf(chunks, learned, states, ids, goalTempo).map((review): ReviewLine => ({
      ...review,
      // As exactly as days need it.
      stability: Math.round(review.stability * 100) / 100,
      where: placesText(numbers, placesOf(ids, review.chunk)!),
    })),
    picture: pathPicture(form, difficulty, states),
  };
}

interface Listed {
  readonly id: string;
  readonly versionId: string;
  readonly pieceId: string;
  readonly learnerId: string;
  readonly title: string;
  readonly edit: number;
  readonly goalTempo: number;
  readonly goalDate: string | null;
  readonly plan: Plan | null;
  readonly restsSince: string | null;
  readonly lastEvent: number | null;
  readonly basis: string | null;
}

/** Many assignments are of one piece: what is said of it is made once. */
function perPiece(make: (preparedName: string) => string): (preparedName: string) => string {
  const made = new Map<string, string>();
  return (name) => {
    const known = made.get(name) ?? make(name);
    made.set(name, known);
    return known;
  };
}

/** Lines as they were read last, by their basis: a list of two thousand is not read anew each time. */
const linesRead = perOpening(() => new LRUCache<string, AssignmentLine>({ max: 4000 }));

/** Lines that are kept and hold, by their assignments. */
function keptLines(
  db: Db,
  wanted: readonly { readonly id: string; readonly basis: string }[],
): ReadonlyMap<string, AssignmentLine> {
  const read = linesRead(db);
  const missing = wanted.filter(({ basis }) => !read.has(basis));
  if (missing.length > 0) {
    const bases = new Map(missing.map(({ id, basis }) => [id, basis]));
    for (const { id, data } of db
      .select({ id: assignmentSummary.assignmentId, data: assignmentSummary.data })
      .from(assignmentSummary)
      .where(
        inArray(
          assignmentSummary.assignmentId,
          missing.map((m) => m.id),
        ),
      )
      .all())
      read.set(bases.get(id)!, JSON.parse(data) as AssignmentLine);
  }
  return new Map(wanted.map(({ id, basis }) => [id, read.get(basis)!]));
}

/** The lines of some assignments; what has changed since it was kept is computed again. */
async function linesOf(db: Db, work: Work, ids: readonly string[]): Promise<(AssignmentLine | BrokenLine)[]> {
  if (ids.length === 0) return [];
  const rows: Listed[] = db
    .select({
      id: assignment.id,
      versionId: assignment.versionId,
      pieceId: version.pieceId,
      learnerId: assignment.learnerId,
      title: piece.title,
      edit: assignment.edit,
      goalTempo: assignment.goalTempo,
      goalDate: assignment.goalDate,
      plan: assignment.plan,
      restsSince: assignment.restsSince,
      lastEvent: lastEventOf(assignment.id),
      basis: assignmentSummary.basis,
    })
    .from(assignment)
    .innerJoin(version, eq(version.id, assignment.versionId))
    .innerJoin(piece, eq(piece.id, version.pieceId))
    .leftJoin(assignmentSummary, eq(assignmentSummary.assignmentId, assignment.id))
    .where(and(inArray(assignment.id, [...ids]), isNull(version.deletedAt), isNull(piece.deletedAt)))
    .all();
  const before = givenBefore(
    db,
    rows.map((row) => row.id),
  );
  const names = preparedKeys(db);
  const basisOf = perPiece(versionBasis(db));
  const bases = rows.map(({ id, pieceId, edit, goalTempo, goalDate, plan, restsSince, lastEvent }) =>
    [
      id,
      basisOf(names.get(pieceId)!),
      edit,
      goalTempo,
      goalDate ?? '-',
      plan === null ? '-' : contentKey(plan),
      restsSince ?? '-',
      lastEvent ?? '-',
      ...(before.get(id) ?? []).map((e) => `${e.id}/${e.edit}/${e.lastEvent}`),
    ].join(' '),
  );
  const made = new Map(
    rows.flatMap((row, i) => {
      const last = derived.get(db, row.id);
      return last?.basis === bases[i] ? [[row.id, last!.line] as const] : [];
    }),
  );
  const holds = (row: Listed, i: number): boolean => row.basis === bases[i] || made.has(row.id);
  const stale = rows.filter((row, i) => !holds(row, i));
  const written = keptLines(
    db,
    rows.flatMap((row, i) => (holds(row, i) && !made.has(row.id) ? [{ id: row.id, basis: bases[i]! }] : [])),
  );
  const kept = new Map([...written, ...made]);
  const summaries = new Map(
    (
      await versionSummaries(
        db,
        work,
        stale.map(({ versionId, pieceId, edit }) => ({ versionId, pieceId, number: edit })),
        { isList: true },
      )
    ).map((summary, i) => [stale[i]!.id, summary]),
  );
  const earlier = await earlierOf(
    db,
    work,
    new Map(stale.flatMap(({ id }) => (before.has(id) ? [[id, before.get(id)!] as const] : []))),
  );
  const byId = new Map(
    rows.map((row, i): [string, AssignmentLine | BrokenLine] => {
      const summary = summaries.get(row.id);
      if (!summary) return [row.id, kept.get(row.id)!];
      const { id, learnerId, title } = row;
      return 'problem' in summary
        ? [id, { id, learnerId, title, problem: summary.problem }]
        : [id, derive(db, row, summary, bases[i]!, earlier.get(id) ?? [])];
    }),
  );
  return ids.flatMap((id) => byId.get(id) ?? []);
}

interface LineMade {
  readonly basis: string;
  readonly line: AssignmentLine;
  readonly history: History;
}

const MOST_LINES = 300;
const derived = derivedRows<LineMade>('Summaries of assignments', MOST_LINES, (db, assignmentId, made) => {
  const kept = {
    basis: made.basis,
    data: JSON.stringify(made.line),
    history: JSON.stringify(made.history),
  };
  if (!db.select({ id: assignment.id }).from(assignment).where(eq(assignment.id, assignmentId)).get()) return;
  db.insert(assignmentSummary)
    .values({ assignmentId, ...kept })
    .onConflictDoUpdate({ target: assignmentSummary.assignmentId, set: kept })
    .run();
});

function derive(
  db: Db,
  row: Listed,
  summary: VersionSummary,
  basis: string,
  earlier: readonly Earlier[],
): AssignmentLine {
  const made = computed(summary, row, eventsOf(db, row.id), earlier);
  const line: AssignmentLine = {
    id: row.id,
    versionId: row.versionId,
    pieceId: row.pieceId,
    learnerId: row.learnerId,
    title: row.title,
    level: summary.level,
    key: summary.key,
    time: summary.time,
    goalTempo: row.goalTempo,
    goalDate: row.goalDate,
    status: row.restsSince
      ? 'resting'
      : made.isKnown
        ? 'known'
        : made.own.events.length > 0
          ? 'learning'
          : 'new',
    lastDay: made.own.events.at(-1)?.day ?? null,
    reachedTempo: made.reachedTempo,
    newMeasures: summary.form.newMeasures,
    bothHands: made.bothHands,
    next: made.next,
    left: Math.round(made.left),
    reviews: made.reviews,
    picture: made.picture,
  };
  const history = historyOf(made.chunks, made.own, summary.form, summary.strands, made.isNew, row.goalTempo);
  derived.keep(db, row.id, { basis, line, history });
  return line;
}

/** Derives the line of an assignment after something was recorded, so that no list has to. */
export const deriveLine = async (db: Db, work: Work, assignmentId: string): Promise<void> =>
  void (await linesOf(db, work, [assignmentId]));

const STATUS_ORDER: readonly AssignmentStatus[] = ['learning', 'new', 'known', 'resting'];

/** What is being learned comes first, and of it what was last played; then what is new, known, at rest. */
const inOrder = (a: AssignmentLine | BrokenLine, b: AssignmentLine | BrokenLine): number => {
  if (!isWhole(a) || !isWhole(b)) return Number(isWhole(b)) - Number(isWhole(a));
  return (
    STATUS_ORDER.indexOf(a.status) - STATUS_ORDER.indexOf(b.status) ||
    (b.lastDay ?? '').localeCompare(a.lastDay ?? '')
  );
};

/** The lines of all pieces of some learners, by learner. What is at rest only where it is asked for. */
export async function piecesOf(
  db: Db,
  work: Work,
  learners: readonly string[],
  { resting = false }: { readonly resting?: boolean } = {},
): Promise<ReadonlyMap<string, readonly (AssignmentLine | BrokenLine)[]>> {
  const given = db
    .select({ id: assignment.id })
    .from(assignment)
    .where(
      and(inArray(assignment.learnerId, [...learners]), resting ? undefined : isNull(assignment.restsSince)),
    )
    .orderBy(desc(assignment.createdAt))
    .all();
  const byLearner = new Map<string, (AssignmentLine | BrokenLine)[]>(learners.map((id) => [id, []]));
  for (const line of await linesOf(
    db,
    work,
    given.map((a) => a.id),
  ))
    byLearner.get(line.learnerId)!.push(line);
  for (const lines of byLearner.values()) lines.sort(inOrder);
  return byLearner;
}

/** The lines of a learner's pieces, those at rest at the end. */
export const piecesOfLearner = async (
  db: Db,
  work: Work,
  learnerId: string,
): Promise<readonly (AssignmentLine | BrokenLine)[]> =>
  (await piecesOf(db, work, [learnerId], { resting: true })).get(learnerId)!;

/** What became of assignments over time, by their ids; those whose lines are derived. */
export function historiesOf(db: Db, assignments: readonly string[]): ReadonlyMap<string, History> {
  if (assignments.length === 0) return new Map();
  const made = assignments.flatMap((id) => {
    const last = derived.get(db, id);
    return last ? [[id, last.history] as const] : [];
  });
  const written = new Map(
    db
      .select({ id: assignmentSummary.assignmentId, history: assignmentSummary.history })
      .from(assignmentSummary)
      .where(inArray(assignmentSummary.assignmentId, [...assignments]))
      .all()
      .flatMap(({ id, history }) => (history === '' ? [] : [[id, JSON.parse(history) as History] as const])),
  );
  return new Map([...written, ...made]);
}

/** Everything that the page of one assignment says. */
export async function progressOf(db: Db, work: Work, row: AssignmentRow) {
  const found = findVersion(db, row.versionId);
  if (!found) throw new Error(`Assignment ${row.id} has lost its version.`);
  const summary = await versionSummaryOf(db, work, {
    versionId: row.versionId,
    pieceId: found.pieceId,
    number: row.edit,
  });
  const events = eventsOf(db, row.id);
  const earlier = (await earlierOf(db, work, givenBefore(db, [row.id]))).get(row.id) ?? [];
  const { learned, carried, known, states, reachedTempo, bothHands, next, plans, left, reviews } = computed(
    summary,
    row,
    events,
    earlier,
  );
  return {
    id: row.id,
    versionId: found.id,
    pieceId: found.pieceId,
    title: found.title,
    level: summary.level,
    key: summary.key,
    goalTempo: row.goalTempo,
    goalDate: row.goalDate,
    isResting: row.restsSince !== null,
    /** What was given, and how many edits of the version came after it. */
    given: { edit: row.edit, since: found.edit - row.edit },
    reachedTempo,
    time: summary.time,
    ids: summary.ids,
    numbers: summary.numbers,
    beats: summary.beats,
    form: summary.form,
    difficulty: summary.difficulty,
    states,
    bothHands,
    next,
    left,
    reviews,
    plan: planOf(row.plan, summary),
    isProposed: row.plan === null,
    plans,
    events,
    /** Earlier versions from which something is known, and where, in words. */
    known,
    /** The steps that are known from there. */
    carried,
    /** What was reached in measures that are not in what was given. */
    elsewhere: learned.elsewhere.map(({ chunk, step, tempo, at }) => ({ chunk, step, tempo, at })),
  };
}

export type Progress = Awaited<ReturnType<typeof progressOf>>;

export async function findProgress(
  db: Db,
  work: Work,
  assignmentId: string,
): Promise<{ progress: Progress; assignment: AssignmentRow } | undefined> {
  const found = findAssignment(db, assignmentId);
  return found && { assignment: found, progress: await progressOf(db, work, found) };
}
