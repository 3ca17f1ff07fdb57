/** Where a learner stands in each piece: computed from the events over what was given, never stored as truth. */
import {
  chunksOf,
  learnedIn,
  measureStates,
  nextStep,
  stepsOf,
  stepState,
  stepTempo,
  type Chunk,
  type ProgressEvent,
} from '$core/lessons/plan';
import { pathPicture, type PathPicture } from '$core/lessons/picture';
import type { StepId } from '$core/lessons/steps';
import { and, asc, desc, eq, inArray, isNull, sql } from 'drizzle-orm';
import type { Db } from '../db/open';
import { assignment, assignmentSummary, piece, progressEvent, version } from '../db/schema';
import { eventsOf, findAssignment, type AssignmentRow } from './assignments';
import { contentKey } from './contentKey';
import { preparedKeys } from './prepared';
import type { Work } from '../pool/work';
import type { VersionSummary } from './derive';
import { versionBasis, versionSummaries, versionSummaryOf } from './summaries';
import { findVersion } from './versions';

/** The next thing to practise, as a line says it. */
export interface NextLine {
  readonly chunk: Chunk;
  readonly step: {
    readonly id: StepId;
    readonly says: string;
    readonly hand: 'right' | 'left' | 'both' | null;
  };
  readonly tempo: number;
}

/** What a list shows of one assignment. */
export interface AssignmentLine {
  readonly id: string;
  readonly versionId: string;
  readonly learnerId: string;
  readonly title: string;
  readonly level: number;
  readonly key: VersionSummary['key'];
  readonly time: VersionSummary['time'];
  readonly goalTempo: number;
  readonly reachedTempo: number | null;
  readonly newMeasures: number;
  /** New measures with both hands. */
  readonly bothHands: number;
  /** What is next, its measures by their numbers. */
  readonly next: (NextLine & { readonly numbers: readonly [string, string] }) | null;
  readonly picture: PathPicture;
}

/** An assignment whose version cannot be shown, and why. */
export interface BrokenLine {
  readonly id: string;
  readonly learnerId: string;
  readonly title: string;
  readonly problem: string;
}

/** Everything that follows from a version and the events of an assignment. */
function computed(summary: VersionSummary, goalTempo: number, events: readonly ProgressEvent[]) {
  const { form, ids, difficulty, numbers } = summary;
  const measures = ids.map((id) => ({ id }));
  const chunks = chunksOf(form, measures);
  const learned = learnedIn(measures, events);
  const states = measureStates(form, learned);
  const next = nextStep(chunks, learned);
  const tempi = learned.byMeasure.flatMap((steps) => [...steps.values()].map((e) => e.tempo ?? 0));
  return {
    chunks,
    learned,
    states,
    reachedTempo: Math.max(0, ...tempi) || null,
    bothHands: states.filter((s, i) => form.firstSeen[i] === i && (s === 'both' || s === 'goal')).length,
    next: next
      ? {
          chunk: next.chunk,
          step: { id: next.step.id, says: next.step.says, hand: next.step.hand },
          tempo: stepTempo(next.step, goalTempo),
          numbers: [numbers[next.chunk.from]!, numbers[next.chunk.to]!] as const,
        }
      : null,
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
  readonly lastEvent: number | null;
  readonly basis: string | null;
  readonly data: string | null;
}

const lastEventOf = sql<
  number | null
>`(select max(${progressEvent.id}) from ${progressEvent} where ${progressEvent.assignmentId} = ${assignment.id})`;

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
      lastEvent: lastEventOf,
      basis: assignmentSummary.basis,
      data: assignmentSummary.data,
    })
    .from(assignment)
    .innerJoin(version, eq(version.id, assignment.versionId))
    .innerJoin(piece, eq(piece.id, version.pieceId))
    .leftJoin(assignmentSummary, eq(assignmentSummary.assignmentId, assignment.id))
    .where(and(inArray(assignment.id, [...ids]), isNull(version.deletedAt), isNull(piece.deletedAt)))
    .all();
  const names = preparedKeys(db);
  const basisOf = versionBasis(db);
  const bases = rows.map(({ pieceId, edit, goalTempo, lastEvent }) =>
    contentKey(basisOf(names.get(pieceId)!), edit, goalTempo, lastEvent),
  );
  const stale = rows.filter((row, i) => row.basis !== bases[i]);
  const summaries = new Map(
    (
      await versionSummaries(
        db,
        work,
        stale.map(({ versionId, pieceId, edit }) => ({ versionId, pieceId, number: edit })),
      )
    ).map((summary, i) => [stale[i]!.id, summary]),
  );
  const byId = new Map(
    rows.map((row, i): [string, AssignmentLine | BrokenLine] => {
      const summary = summaries.get(row.id);
      if (!summary) return [row.id, JSON.parse(row.data!) as AssignmentLine];
      const { id, learnerId, title } = row;
      return 'problem' in summary
        ? [id, { id, learnerId, title, problem: summary.problem }]
        : [id, derive(db, row, summary, bases[i]!)];
    }),
  );
  return ids.flatMap((id) => byId.get(id) ?? []);
}

function derive(db: Db, row: Listed, summary: VersionSummary, basis: string): AssignmentLine {
  const { bothHands, reachedTempo, next, picture } = computed(summary, row.goalTempo, eventsOf(db, row.id));
  const line: AssignmentLine = {
    id: row.id,
    versionId: row.versionId,
    learnerId: row.learnerId,
    title: row.title,
    level: summary.level,
    key: summary.key,
    time: summary.time,
    goalTempo: row.goalTempo,
    reachedTempo,
    newMeasures: summary.form.newMeasures,
    bothHands,
    next,
    picture,
  };
  const kept = { basis, data: JSON.stringify(line) };
  db.insert(assignmentSummary)
    .values({ assignmentId: row.id, ...kept })
    .onConflictDoUpdate({ target: assignmentSummary.assignmentId, set: kept })
    .run();
  return line;
}

/** Derives the line of an assignment after something was recorded, so that no list has to. */
export const deriveLine = async (db: Db, work: Work, assignmentId: string): Promise<void> =>
  void (await linesOf(db, work, [assignmentId]));

/** The lines of a learner's pieces, in the order in which they were given. */
export const piecesOfLearner = (
  db: Db,
  work: Work,
  learnerId: string,
): Promise<(AssignmentLine | BrokenLine)[]> =>
  linesOf(
    db,
    work,
    db
      .select({ id: assignment.id })
      .from(assignment)
      .where(eq(assignment.learnerId, learnerId))
      .orderBy(asc(assignment.createdAt))
      .all()
      .map((a) => a.id),
  );

/** For each learner the lines of the last pieces given, at most so many, and how many there are in all. */
export async function latestPieces(
  db: Db,
  work: Work,
  learners: readonly string[],
  most: number,
): Promise<
  ReadonlyMap<string, { readonly lines: readonly (AssignmentLine | BrokenLine)[]; readonly all: number }>
> {
  if (learners.length === 0) return new Map();
  const given = new Map<string, string[]>();
  for (const { id, learnerId } of db
    .select({ id: assignment.id, learnerId: assignment.learnerId })
    .from(assignment)
    .innerJoin(version, eq(version.id, assignment.versionId))
    .innerJoin(piece, eq(piece.id, version.pieceId))
    .where(
      and(inArray(assignment.learnerId, [...learners]), isNull(version.deletedAt), isNull(piece.deletedAt)),
    )
    .orderBy(desc(assignment.createdAt))
    .all())
    given.set(learnerId, [...(given.get(learnerId) ?? []), id]);
  const lines = await linesOf(
    db,
    work,
    [...given.values()].flatMap((ids) => ids.slice(0, most)),
  );
  return new Map(
    learners.map((learner) => [
      learner,
      {
        lines: lines.filter((line) => line.learnerId === learner),
        all: given.get(learner)?.length ?? 0,
      },
    ]),
  );
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
  const { learned, chunks, states, reachedTempo, bothHands, next } = computed(
    summary,
    row.goalTempo,
    eventsOf(db, row.id),
  );
  return {
    id: row.id,
    versionId: found.id,
    title: found.title,
    level: summary.level,
    key: summary.key,
    goalTempo: row.goalTempo,
    /** What was given, and how many edits of the version came after it. */
    given: { edit: row.edit, since: found.edit - row.edit },
    reachedTempo,
    time: summary.time,
    numbers: summary.numbers,
    form: summary.form,
    difficulty: summary.difficulty,
    states,
    bothHands,
    next,
    chunks: chunks.map((chunk) => ({
      ...chunk,
      steps: stepsOf(chunk).map((step) => ({
        id: step.id,
        says: step.says,
        hand: step.hand,
        suggested: stepTempo(step, row.goalTempo),
        ...stepState(learned, chunk, step.id),
      })),
    })),
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
