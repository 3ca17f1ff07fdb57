/**
 * What SQL alone cannot carry over from an older studio: revisions become edits, and measures that were named by their place in a
 * version are named by their ids in the source. Runs when the database is opened, once; what cannot be read stays where it is
 * and is tried again the next time.
 */
import { chunkId } from '$core/lessons/chunkId';
import { editTo, type Edited } from '$core/edits/edit';
import { listed, type VersionDocument } from '$core/version/document';
import { introductionOf } from '$core/version/introduction';
import { fromOlder } from '$core/version/older';
import { introductionId, measureId } from '$core/score/measureId';
import type { Score } from '$core/score/score';
import { eq, sql } from 'drizzle-orm';
import { hashOf } from './contentKey';
import { preparedPiece } from './prepared';
import { atomically, type Db } from '../db/open';
import { assignment, edit, piece, progressEvent, snapshot, version } from '../db/schema';
import { SNAPSHOT_EVERY } from './versions';

interface OlderRevision {
  readonly number: number;
  readonly recipe: string;
  readonly decisions: string;
  readonly created_at: string;
}

const tableIsThere = (db: Db, name: string): boolean =>
  db.get(sql`select 1 from sqlite_master where type = 'table' and name = ${name}`) !== undefined;

/** Brings over what an older studio holds. Returns how many versions could not be. */
export function carryOver(db: Db): number {
  for (const { id, source } of db
    .select({ id: piece.id, source: piece.source })
    .from(piece)
    .where(eq(piece.sourceHash, ''))
    .all())
    db.update(piece)
      .set({ sourceHash: hashOf(source) })
      .where(eq(piece.id, id))
      .run();
  if (!tableIsThere(db, 'older_version')) return 0;
  const older = db.all<{ id: string }>(sql`select id from older_version`);
  let left = 0;
  for (const { id } of older)
    try {
      atomically(db, (tx) => versionOver(tx, id));
    } catch (error) {
      left += 1;
      console.error(`Version ${id} could not be carried over from the older studio:`, error);
    }
  if (left === 0) {
    db.run(sql`drop table older_version`);
    db.run(sql`drop table older_revision`);
    db.run(sql`vacuum`);
  }
  return left;
}

function versionOver(db: Db, id: string): void {
  const row = db.select({ pieceId: version.pieceId }).from(version).where(eq(version.id, id)).get();
  if (row) {
    const { score } = preparedPiece(db, row.pieceId);
    const revisions = db.all<OlderRevision>(
      sql`select number, recipe, decisions, created_at from older_revision where version_id = ${id} order by number`,
    );
    const documents = revisions.map((r) => fromOlder(score, JSON.parse(r.recipe), JSON.parse(r.decisions)));
    const head = editsFrom(db, id, documents, revisions);
    const last = documents.at(-1);
    if (!last) throw new Error('It has no revision.');
    db.update(version)
      .set({
        edit: head,
        level: last.recipe.level,
        style: last.recipe.style,
        key: last.recipe.key,
        decided: listed(last).length,
      })
      .where(eq(version.id, id))
      .run();
    progressOver(db, id, head, score, last);
  }
  db.run(sql`delete from older_revision where version_id = ${id}`);
  db.run(sql`delete from older_version where id = ${id}`);
}

/** One edit for each revision that changed anything; the number of the last one comes back. */
function editsFrom(
  db: Db,
  versionId: string,
  documents: readonly VersionDocument[],
  revisions: readonly OlderRevision[],
): number {
  let number = 0;
  documents.forEach((document, i) => {
    if (i === 0) {
      db.insert(snapshot).values({ versionId, number, document }).run();
      return;
    }
    const { patches, inverse }: Edited = editTo(documents[i - 1]!, document);
    if (patches.length === 0) return;
    number += 1;
    db.insert(edit)
      .values({ versionId, number, author: 'teacher', patches, inverse, createdAt: revisions[i]!.created_at })
      .run();
    if (number % SNAPSHOT_EVERY === 0) db.insert(snapshot).values({ versionId, number, document }).run();
  });
  return number;
}

/** What was learned in measures by their places in the version is learned in measures of the source. */
function progressOver(
  db: Db,
  versionId: string,
  head: number,
  score: Score,
  document: VersionDocument,
): void {
  const introduction = introductionOf(score, document.recipe);
  const idAt = (place: number): string =>
    place < introduction ? introductionId(place) : measureId(place - introduction);
  for (const { id } of db
    .select({ id: assignment.id })
    .from(assignment)
    .where(eq(assignment.versionId, versionId))
    .all()) {
    db.update(assignment).set({ edit: head }).where(eq(assignment.id, id)).run();
    for (const event of db
      .select({ id: progressEvent.id, chunk: progressEvent.chunk })
      .from(progressEvent)
      .where(eq(progressEvent.assignmentId, id))
      .all()) {
      const [from, to] = event.chunk.split('-').map(Number);
      if (from === undefined || to === undefined || Number.isNaN(from + to)) continue;
      db.update(progressEvent)
        .set({ chunk: chunkId(idAt(from), idAt(to)) })
        .where(eq(progressEvent.id, event.id))
        .run();
    }
  }
}
