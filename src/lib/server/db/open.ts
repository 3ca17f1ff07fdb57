/** Opens the studio's database file and brings it up to the newest migration. */
import Database from 'better-sqlite3';
import { drizzle } from 'drizzle-orm/better-sqlite3';
import { migrate } from 'drizzle-orm/better-sqlite3/migrator';
import type { BaseSQLiteDatabase } from 'drizzle-orm/sqlite-core';
import { randomInt } from 'node:crypto';
import { accessSync, constants, existsSync, mkdirSync, readFileSync } from 'node:fs';
import { join, resolve } from 'node:path';
import * as schema from './schema';
import { StudioProblem, troubleOf } from './trouble';

/** The database, or a transaction in it. */
export type Db = BaseSQLiteDatabase<'sync', Database.RunResult, typeof schema>;

/** The database with the driver's own connection to it, for what SQL has no words for. */
export type OpenDb = Db & { readonly $client: Database.Database };

/**
 * Does something in one transaction that has the database to itself from its beginning: all of it is kept, or nothing. Inside another
 * one it is a part of that.
 */
export const atomically = <T>(db: Db, work: (tx: Db) => T): T =>
  db.transaction(work, { behavior: 'immediate' });

/** The file of a studio in its folder. */
export const fileIn = (folder: string): string => join(folder, 'keypath.db');

/** The folder of the studio that this process serves: KEYPATH_DATA names it. */
export const dataFolder = (): string => process.env.KEYPATH_DATA ?? 'data';

/** A connection that only reads, beside the one that writes. */
export function openToRead(folder: string): Db {
  const file = new Database(fileIn(folder), { readonly: true, fileMustExist: true });
  file.pragma('busy_timeout = 5000');
  return drizzle(file, { schema });
}

/**
 * Opens a studio. `place` is its folder, made if it is missing, or with `isFile` the file itself; `migrations` is the folder that
 * drizzle-kit writes. Throws StudioProblem with a sentence where the folder or the file cannot be used.
 */
export function openDatabase(
  place: string,
  migrations: string,
  { isFile = false }: { readonly isFile?: boolean } = {},
): OpenDb {
  const folder = isFile ? resolve(place, '..') : place;
  let file: Database.Database | undefined;
  try {
    mkdirSync(folder, { recursive: true });
    // SQLite opens what it may only read without a word, and would complain at the first lesson.
    accessSync(folder, constants.W_OK);
    file = new Database(isFile ? place : fileIn(folder));
    file.pragma('busy_timeout = 5000');
    file.pragma('journal_mode = WAL');
    // What was acknowledged is on the disk, also when the power goes.
    file.pragma('synchronous = FULL');
    file.pragma('foreign_keys = ON');
    checkWhole(file, folder);
    checkAge(file, folder, migrations);
    file.exec('begin immediate; rollback');
    const db = drizzle(file, { schema });
    migrate(db, { migrationsFolder: migrations });
    if (generationIn(file) === 0) beginGeneration(file);
    return db;
  } catch (error) {
    file?.close();
    const sentence = troubleOf(error, resolve(folder));
    throw sentence === undefined ? error : new StudioProblem(sentence, { cause: error });
  }
}

/**
 * Names what a file has been since it was made or last restored: pages that were opened on something else are told by it. It is a number
 * in the file's head, so it outlives the process and is never 0.
 */
export const generationIn = (file: Database.Database): number =>
  file.pragma('user_version', { simple: true }) as number;

/** Gives a file another generation. */
export const beginGeneration = (file: Database.Database): void =>
  void file.pragma(`user_version = ${randomInt(1, 2 ** 31 - 1)}`);

/** Throws where the file was cut off or is damaged otherwise. */
function checkWhole(file: Database.Database, folder: string): void {
  const found = file.pragma('quick_check(1)', { simple: true });
  if (found !== 'ok')
    throw new StudioProblem(troubleOf({ code: 'SQLITE_CORRUPT' }, resolve(folder))!, { cause: found });
}

/** When the newest migration in a folder was made, as drizzle notes it. */
function newestMigration(migrations: string): number {
  const journal = join(migrations, 'meta', '_journal.json');
  if (!existsSync(journal))
    throw new StudioProblem(
      `The folder ${resolve(migrations)} with the studio's migrations is missing. Start Key Path from its own folder, or name it in KEYPATH_MIGRATIONS.`,
    );
  const { entries } = JSON.parse(readFileSync(journal, 'utf8')) as { entries: { when: number }[] };
  return Math.max(0, ...entries.map((e) => e.when));
}

/** Throws where a newer Key Path made the file, or another program. */
export function checkAge(file: Database.Database, folder: string, migrations: string): void {
  const tables = file
    .prepare(`select name from sqlite_master where type = 'table'`)
    .pluck()
    .all() as string[];
  const newest = newestMigration(migrations);
  if (tables.length === 0) return;
  if (!tables.includes('__drizzle_migrations'))
    throw new StudioProblem(troubleOf({ code: 'SQLITE_NOTADB' }, resolve(folder))!);
  const made = file.prepare('select max(created_at) from __drizzle_migrations').pluck().get() as
    number | null;
  if ((made ?? 0) > newest)
    throw new StudioProblem(
      `The studio in ${resolve(folder)} was made by a newer Key Path than this one. Start the newer one, or restore an older backup with ./keypath restore FILE.`,
    );
}
