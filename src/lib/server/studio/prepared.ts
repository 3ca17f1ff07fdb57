/**
 * The score of a piece as it is worked with, one immutable object for one content: the file, what its parts are taken to be, the
 * teacher's sections, title and composer, and the reader. Whatever is made from it can be kept by this object.
 */
import { sectionStartsSchema } from '$core/analysis/sections';
import { readScoreFile } from '$core/io/readScoreFile';
import type { ReadResult } from '$core/io/readResult';
import { choicesFor, partChoicesSchema, withParts, type PartChoices } from '$core/players/parts';
import type { Score } from '$core/score/score';
import { decisionsSchema, type Decision } from '$core/decisions/registry';
import { mended } from '$core/version/mend';
import { eq } from 'drizzle-orm';
import { LRUCache } from 'lru-cache';
import type { Db } from '../db/open';
import { perOpening } from '../db/opening';
import { piece } from '../db/schema';
import { noteNaming } from '$core/theory/noteNames';
import { contentKey, ENGINE, hashOf } from './contentKey';
import { weightOf, type Weight } from './weight';

interface Prepared {
  /** Names the content. */
  readonly key: string;
  /** Melody and hands found among the parts; the title is the piece's. */
  readonly score: Score;
  /** What its parts are taken to be: the teacher's choice, or the proposal. */
  readonly parts: PartChoices;
  readonly warnings: readonly string[];
  /** What was put right in the source. */
  readonly mends: readonly Decision[];
}

/** Notes that are kept read, in all: a note takes about half a kilobyte. */
const MOST_NOTES = 20_000;
const MOST_READ = 60;
const notesIn = ({ score }: { readonly score: Score }): number =>
  1 + score.parts.reduce((sum, part) => sum + part.notes.length, 0);
const kept = { max: MOST_READ, maxSize: MOST_NOTES, sizeCalculation: notesIn };
const filesOf = perOpening(() => new LRUCache<string, ReadResult>(kept));
const preparedOf = perOpening(() => new LRUCache<string, Prepared>(kept));

const columns = {
  id: piece.id,
  title: piece.title,
  composer: piece.composer,
  sourceName: piece.sourceName,
  sourceHash: piece.sourceHash,
  parts: piece.parts,
  sections: piece.sections,
  mends: piece.mends,
};

type Row = Pick<
  typeof piece.$inferSelect,
  'id' | 'title' | 'composer' | 'sourceName' | 'sourceHash' | 'parts' | 'sections' | 'mends'
>;

const keyOf = ({ sourceHash, sourceName, title, composer, parts, sections, mends }: Row): string =>
  contentKey(ENGINE, noteNaming(), sourceHash, sourceName, title, composer, parts, sections, mends);

function rowOf(db: Db, pieceId: string): Row {
  const row = db.select(columns).from(piece).where(eq(piece.id, pieceId)).get();
  if (!row) throw new Error(`No piece ${pieceId}.`);
  return row;
}

/** The names of what pieces are, by their ids, without reading a file. */
export const preparedKeys = (db: Db): ReadonlyMap<string, string> =>
  new Map(
    db
      .select(columns)
      .from(piece)
      .all()
      .map((row) => [row.id, keyOf(row)]),
  );

/** The name of what a piece is now. */
export const preparedKey = (db: Db, pieceId: string): string => keyOf(rowOf(db, pieceId));

/** The file of a piece as it was read, all parts as they stand in it. Throws InputError where it cannot be read. */
export function sourceScore(db: Db, pieceId: string): ReadResult {
  return readSource(db, rowOf(db, pieceId));
}

/** What a file says of itself, and how much is in it. */
export interface ReadPiece extends Weight {
  readonly title: string;
  readonly composer: string;
}

/** Reads a file that is not kept yet; when it is, it need not be read again. Throws InputError where it cannot be read. */
export function readPiece(
  db: Db,
  { name, bytes }: { readonly name: string; readonly bytes: Uint8Array },
): ReadPiece {
  const result = readScoreFile(name, bytes);
  filesOf(db).set(fileKey(hashOf(bytes), name), result);
  return {
    title: result.score.title,
    composer: result.score.composer,
    ...weightOf(result.score),
  };
}

const fileKey = (hash: string, name: string): string => `${ENGINE} ${hash} ${name}`;

function readSource(db: Db, { id, sourceHash, sourceName }: Row): ReadResult {
  const files = filesOf(db);
  const key = fileKey(sourceHash, sourceName);
  const known = files.get(key);
  if (known) return known;
  const { bytes } = db.select({ bytes: piece.source }).from(piece).where(eq(piece.id, id)).get()!;
  const result = readScoreFile(sourceName, bytes);
  files.set(key, result);
  return result;
}

/** A piece as it is worked with. */
export function preparedPiece(db: Db, pieceId: string): Prepared {
  const row = rowOf(db, pieceId);
  const prepared = preparedOf(db);
  const key = keyOf(row);
  const known = prepared.get(key);
  if (known) return known;
  const { score, warnings } = readSource(db, row);
  const parts = choicesFor(score, row.parts ? partChoicesSchema.parse(row.parts) : undefined);
  const mends = row.mends ? decisionsSchema.parse(row.mends) : [];
  const made: Prepared = {
    key,
    mends,
    parts,
    warnings,
    score: {
      ...withParts(mended(score, mends), parts),
      ...(row.sections ? { sectionStarts: sectionStartsSchema.parse(row.sections) } : {}),
      title: row.title,
      composer: row.composer,
    },
  };
  prepared.set(key, made);
  return made;
}
