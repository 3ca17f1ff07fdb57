/** Pieces: the source as received, and the score read from it. */
import { readScoreFile } from '$core/io/readScoreFile';
import type { ReadResult } from '$core/io/readResult';
import { asc, eq } from 'drizzle-orm';
import type { Db } from '../db/open';
import { piece } from '../db/schema';
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

/** Reads a file and keeps it. Throws InputError, and keeps nothing, when it cannot be read. */
export function addPiece(
  db: Db,
  file: { name: string; bytes: Uint8Array; rights: Rights },
): { id: string; warnings: readonly string[] } {
  const { score, warnings } = readScoreFile(file.name, file.bytes);
  const id = newId();
  const nameless = score.title === 'Untitled';
  db.insert(piece)
    .values({
      id,
      title: nameless ? titleFromName(file.name) : score.title,
      composer: score.composer,
      rights: file.rights,
      sourceName: file.name,
      source: Buffer.from(file.bytes),
      createdAt: now(),
    })
    .run();
  return { id, warnings };
}

const titleFromName = (name: string): string =>
  name
    .replace(/\.[^.]+$/, '')
    .replace(/[-_]+/g, ' ')
    .trim() || 'Untitled';

export const setRights = (db: Db, id: string, rights: Rights): void =>
  void db.update(piece).set({ rights }).where(eq(piece.id, id)).run();

export const sourceFile = (db: Db, id: string): { name: string; bytes: Buffer } | undefined =>
  db.select({ name: piece.sourceName, bytes: piece.source }).from(piece).where(eq(piece.id, id)).get();

/** Sources never change, so what was read from them can be kept. */
const MOST_READ = 60;
const read = new Map<string, ReadResult>();

/** The score of a piece, read from its source. */
export function scoreOf(db: Db, id: string): ReadResult {
  const known = read.get(id);
  if (known) return known;
  const file = sourceFile(db, id);
  if (!file) throw new Error(`No piece ${id}.`);
  const result = readScoreFile(file.name, file.bytes);
  read.set(id, result);
  if (read.size > MOST_READ) read.delete(read.keys().next().value!);
  return result;
}
