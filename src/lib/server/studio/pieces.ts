/** Pieces: the source as received, and what the teacher says of it. prepared.ts makes the score. */
import { plainLine } from '$core/plainText';
import { decide, subjectOf } from '$core/decisions/decide';
import { decisionsSchema, type Decision } from '$core/decisions/registry';
import { sectionStartsSchema, type SectionStart } from '$core/analysis/sections';
import type { PartChoices } from '$core/players/parts';
import { and, asc, eq, inArray, isNull, sql } from 'drizzle-orm';
import { atomically, type Db } from '../db/open';
import { piece } from '../db/schema';
import { contentKey, hashOf } from './contentKey';
import { readPiece, type ReadPiece } from './prepared';
import { newId, now } from './ids';
import { isHeavy, type Weight } from './weight';

type Rights = (typeof RIGHTS)[number];
export const RIGHTS = ['own work', 'public domain', 'licensed', 'not known'] as const;

interface PieceRow {
  readonly id: string;
  readonly title: string;
  readonly composer: string;
  readonly rights: Rights;
  readonly sourceName: string;
}

const columns = {
  id: piece.id,
  title: piece.title,
  composer: piece.composer,
  rights: piece.rights,
  sourceName: piece.sourceName,
};

export const listPieces = (db: Db): PieceRow[] =>
  db.select(columns).from(piece).where(isNull(piece.deletedAt)).orderBy(asc(piece.title)).all();

export const findPiece = (db: Db, id: string): PieceRow | undefined =>
  db
    .select(columns)
    .from(piece)
    .where(and(eq(piece.id, id), isNull(piece.deletedAt)))
    .get();

interface BroughtFile {
  readonly name: string;
  readonly bytes: Uint8Array;
}

/** What a teacher may say of a piece before it is kept; what she leaves out is as the source has it. */
interface PieceWishes {
  readonly rights: Rights;
  readonly title?: string | undefined;
  readonly composer?: string | undefined;
  readonly parts?: PartChoices | undefined;
}

/** Reads a file and keeps it. Throws InputError, and keeps nothing, when it cannot be read. */
export const addPiece = (db: Db, file: BroughtFile & PieceWishes): string =>
  keepPiece(db, file, readPiece(db, file));

/** Keeps a file that has been read. */
export function keepPiece(db: Db, file: BroughtFile & PieceWishes, found: ReadPiece): string {
  const id = newId();
  db.insert(piece)
    .values({
      id,
      title: plainLine(file.title ?? '') || plainLine(found.title) || 'Untitled',
      composer: plainLine(file.composer ?? found.composer),
      rights: file.rights,
      sourceName: plainLine(file.name),
      source: Buffer.from(file.bytes),
      sourceHash: hashOf(file.bytes),
      parts: file.parts ?? null,
      notes: found.notes,
      measures: found.measures,
      createdAt: now(),
    })
    .run();
  return id;
}

/** A piece that nobody has counted yet is heavy where its file is larger than this, in bytes. */
const UNCOUNTED = 20_000;

/** Whether work on a piece may take long, by its id: it then never stands before what opens other pages. */
export function longPieces(db: Db, ids: readonly string[]): ReadonlySet<string> {
  const rows = db
    .select({
      id: piece.id,
      notes: piece.notes,
      measures: piece.measures,
      bytes: sql<number>`length(${piece.source})`,
    })
    .from(piece)
    .where(inArray(piece.id, [...new Set(ids)]))
    .all();
  return new Set(
    rows.flatMap(({ id, notes, measures, bytes }) =>
      (notes === null || measures === null ? bytes > UNCOUNTED : isHeavy({ notes, measures })) ? [id] : [],
    ),
  );
}

export const isLongPiece = (db: Db, id: string): boolean => longPieces(db, [id]).has(id);

/** How much a piece holds; null where nobody has counted yet. */
export function weightOfPiece(db: Db, id: string): Weight | null {
  const row = db
    .select({ notes: piece.notes, measures: piece.measures })
    .from(piece)
    .where(eq(piece.id, id))
    .get();
  return row && row.notes !== null && row.measures !== null
    ? { notes: row.notes, measures: row.measures }
    : null;
}

/** A piece of an older studio that nobody has counted, besides those that cannot be. */
export const uncountedPiece = (db: Db, passed: ReadonlySet<string>): string | undefined =>
  db
    .select({ id: piece.id })
    .from(piece)
    .where(isNull(piece.notes))
    .all()
    .find(({ id }) => !passed.has(id))?.id;

export const setWeight = (db: Db, id: string, { notes, measures }: Weight): void =>
  void db.update(piece).set({ notes, measures }).where(eq(piece.id, id)).run();

export const setRights = (db: Db, id: string, rights: Rights): void =>
  void db.update(piece).set({ rights }).where(eq(piece.id, id)).run();

/** Another title and composer. */
export const renamePiece = (
  db: Db,
  id: string,
  named: { readonly title: string; readonly composer: string },
): void => void db.update(piece).set(named).where(eq(piece.id, id)).run();

/** The file as received; none of a piece in the trash. */
export const sourceFile = (db: Db, id: string): { name: string; bytes: Buffer } | undefined =>
  db
    .select({ name: piece.sourceName, bytes: piece.source })
    .from(piece)
    .where(and(eq(piece.id, id), isNull(piece.deletedAt)))
    .get();

/** What the teacher takes the parts to be; null goes back to the proposal. */
export const setParts = (db: Db, id: string, parts: PartChoices | null): void =>
  void db.update(piece).set({ parts }).where(eq(piece.id, id)).run();

/** What was put right in the source of a piece. */
function mendsOf(db: Db, id: string): readonly Decision[] {
  const row = db.select({ mends: piece.mends }).from(piece).where(eq(piece.id, id)).get();
  return row?.mends ? decisionsSchema.parse(row.mends) : [];
}

/** Puts something right in the source, for every version; a later correction of the same takes the place of the one before. */
export const mendSource = (db: Db, id: string, mend: Decision): void =>
  void db
    .update(piece)
    .set({ mends: decide(mendsOf(db, id), mend) })
    .where(eq(piece.id, id))
    .run();

/** Takes a correction back, by what it is about. */
export const unmendSource = (db: Db, id: string, subject: string): void =>
  void db
    .update(piece)
    .set({ mends: mendsOf(db, id).filter((m) => subjectOf(m) !== subject) })
    .where(eq(piece.id, id))
    .run();

/** The teacher's own form; null where she has left it to the analysis. */
export function sectionsOf(db: Db, id: string): readonly SectionStart[] | null {
  const row = db.select({ sections: piece.sections }).from(piece).where(eq(piece.id, id)).get();
  return row?.sections ? sectionStartsSchema.parse(row.sections) : null;
}

/**
 * Keeps the teacher's form, or with null goes back to the analysis. With `was`, what the page had before: false, and nothing is kept,
 * where somebody else has changed it meanwhile.
 */
export const setSections = (
  db: Db,
  id: string,
  sections: readonly SectionStart[] | null,
  was?: readonly SectionStart[] | null,
): boolean =>
  atomically(db, (tx) => {
    if (was !== undefined && contentKey(sectionsOf(tx, id)) !== contentKey(was)) return false;
    tx.update(piece).set({ sections }).where(eq(piece.id, id)).run();
    return true;
  });
