/** Versions of a piece that a student was given before another one: what was learned in them is known in it where it is the same. */
import type { LessonEvent } from '$core/lessons/events';
import { and, asc, eq, inArray, isNull, lt, ne } from 'drizzle-orm';
import { alias } from 'drizzle-orm/sqlite-core';
import type { Db } from '../db/open';
import { assignment, version } from '../db/schema';
import type { Work } from '../pool/work';
import type { VersionSummary } from './derive';
import { eventsOf, lastEventOf } from './events';
import { versionSummaries } from './summaries';

interface GivenBefore {
  /** Of the earlier assignment. */
  readonly id: string;
  readonly versionId: string;
  readonly pieceId: string;
  readonly edit: number;
  readonly lastEvent: number;
}

const first = alias(assignment, 'first');
const firstVersion = alias(version, 'first_version');

/** What the students of some assignments were given of the same pieces before, by assignment; only where something was done in it. */
export function givenBefore(db: Db, ids: readonly string[]): ReadonlyMap<string, readonly GivenBefore[]> {
  if (ids.length === 0) return new Map();
  const found = db
    .select({
      of: assignment.id,
      id: first.id,
      versionId: first.versionId,
      pieceId: firstVersion.pieceId,
      edit: first.edit,
      lastEvent: lastEventOf(first.id),
    })
    .from(assignment)
    .innerJoin(version, eq(version.id, assignment.versionId))
    .innerJoin(
      first,
      and(eq(first.learnerId, assignment.learnerId), lt(first.createdAt, assignment.createdAt)),
    )
    .innerJoin(
      firstVersion,
      and(
        eq(firstVersion.id, first.versionId),
        eq(firstVersion.pieceId, version.pieceId),
        ne(firstVersion.id, version.id),
        isNull(firstVersion.deletedAt),
      ),
    )
    .where(inArray(assignment.id, [...ids]))
    .orderBy(asc(first.createdAt))
    .all();
  const byId = new Map<string, GivenBefore[]>();
  for (const { of, lastEvent, ...given } of found)
    if (lastEvent !== null) byId.set(of, [...(byId.get(of) ?? []), { ...given, lastEvent }]);
  return byId;
}

/** What a student has done in an earlier version. */
export interface Earlier {
  readonly versionId: string;
  readonly summary: VersionSummary;
  readonly events: readonly LessonEvent[];
}

/** The same with summaries and events, by assignment. A version that can't be read carries nothing over. */
export async function earlierOf(
  db: Db,
  work: Work,
  given: ReadonlyMap<string, readonly GivenBefore[]>,
): Promise<ReadonlyMap<string, readonly Earlier[]>> {
  const wanted = [...given].flatMap(([of, before]) => before.map((b) => ({ of, ...b })));
  if (wanted.length === 0) return new Map();
  const summaries = await versionSummaries(
    db,
    work,
    wanted.map(({ versionId, pieceId, edit }) => ({ versionId, pieceId, number: edit })),
    { isList: true },
  );
  const byId = new Map<string, Earlier[]>();
  wanted.forEach(({ of, id, versionId }, i) => {
    const summary = summaries[i]!;
    if ('problem' in summary) return;
    byId.set(of, [...(byId.get(of) ?? []), { versionId, summary, events: eventsOf(db, id) }]);
  });
  return byId;
}
