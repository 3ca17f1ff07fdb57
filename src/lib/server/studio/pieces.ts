/** Pieces: the source as received, and what the teacher says of it. prepared.ts makes the score. */
import { sectionStartsSchema, type SectionStart } from '$core/analysis/sections';
import { readScoreFile, titleOf } from '$core/io/readScoreFile';
import type { PartChoices } from '$core/score/parts';
import { asc, eq } from 'drizzle-orm';
import type { Db } from '../db/open';
import { piece } from '../db/schema';
import { hashOf } from './contentKey';
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
  db.select(columns).from(piece).orderBy(asc(piece.title)).all();

export const findPiece = (db: Db, id: string): PieceRow | undefined =>
  db.select(columns).from(piece).where(eq(piece.id, id)).get();

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
export function addPiece(
  db: Db,
  file: BroughtFile & PieceWishes,
): { id: string; warnings: readonly string[] } {
  const { score, warnings } = readScoreFile(file.name, file.bytes);
  const id = newId();
  db.insert(piece)
    .values({
      id,
      title: file.title?.trim() || titleOf(score, file.name),
      composer: file.composer?.trim() ?? score.composer,
      rights: file.rights,
      sourceName: file.name,
      source: Buffer.from(file.bytes),
      sourceHash: hashOf(file.bytes),
      parts: file.parts ?? null,
      createdAt: now(),
    })
    .run();
  return { id, warnings };
}

export const setRights = (db: Db, id: string, rights: Rights): void =>
  void db.update(piece).set({ rights }).where(eq(piece.id, id)).run();

export const sourceFile = (db: Db, id: string): { name: string; bytes: Buffer } | undefined =>
  db.select({ name: piece.sourceName, bytes: piece.source }).from(piece).where(eq(piece.id, id)).get();

/** What the teacher takes the parts to be; null goes back to the proposal. */
export const setParts = (db: Db, id: string, parts: PartChoices | null): void =>
  void db.update(piece).set({ parts }).where(eq(piece.id, id)).run();

/** The teacher's own form; null where she has left it to the analysis. */
export function sectionsOf(db: Db, id: string): readonly SectionStart[] | null {
  const row = db.select({ sections: piece.sections }).from(piece).where(eq(piece.id, id)).get();
  return row?.sections ? sectionStartsSchema.parse(row.sections) : null;
}

/** Keeps the teacher's form, or with null goes back to the analysis. */
export const setSections = (db: Db, id: string, sections: readonly SectionStart[] | null): void =>
  void db.update(piece).set({ sections }).where(eq(piece.id, id)).run();
