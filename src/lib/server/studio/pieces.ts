/** Pieces: the source as received, and what the teacher says of it. prepared.ts makes the score. */
import { plainLine } from '$core/plainText';
import { decide, subjectOf } from '$core/decisions/decide';
import { decisionsSchema, type Decision } from '$core/decisions/registry';
import { sectionStartsSchema, type SectionStart } from '$core/analysis/sections';
import type { PartChoices } from '$core/score/parts';
import { and, asc, eq, isNull, sql } from 'drizzle-orm';
import { atomically, type Db } from '../db/open';
import { piece } from '../db/schema';
import { contentKey, hashOf } from './contentKey';
import { readPiece, type ReadPiece } from './prepared';
import { newId, now } from './ids';

export type Rights = (typeof RIGHTS)[number];
export const RIGHTS = ['own work', 'public domain', 'licensed', 'not known'] as const;

export interface PieceRow {
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

export interface BroughtFile {
  readonly name: string;
  readonly bytes: Uint8Array;
}

/** What a teacher may say of a piece before it is kept; what she leaves out is as the source has it. */
export interface PieceWishes {
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
      createdAt: now(),
    })
    .run();
  return id;
}

/** Of a file whose music takes long to read and to arrange, in bytes; of a compressed one. */
const LONG = { plain: 300_000, compressed: 20_000 };

/** Whether work on a piece may take long: it then never stands before what opens other pages. */
export function isLongPiece(db: Db, id: string): boolean {
  const row = db
    .select({ name: piece.sourceName, bytes: sql<number>`length(${piece.source})` })
    .from(piece)
    .where(eq(piece.id, id))
    .get();
  return row !== undefined && isLongFile(row.name, row.bytes);
}

export const isLongFile = (name: string, bytes: number): boolean =>
  bytes > (/\.(mxl|zip)$/i.test(name) ? LONG.compressed : LONG.plain);

export const setRights = (db: Db, id: string, rights: Rights): void =>
  void db.update(piece).set({ rights }).where(eq(piece.id, id)).run();

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
export function mendsOf(db: Db, id: string): readonly Decision[] {
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
