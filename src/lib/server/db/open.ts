/** Opens the studio's database file and brings it up to the newest migration. */
import Database from 'better-sqlite3';
import { drizzle } from 'drizzle-orm/better-sqlite3';
import { migrate } from 'drizzle-orm/better-sqlite3/migrator';
import type { BaseSQLiteDatabase } from 'drizzle-orm/sqlite-core';
import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import * as schema from './schema';

/** The database, or a transaction in it. */
export type Db = BaseSQLiteDatabase<'sync', Database.RunResult, typeof schema>;

const fileIn = (folder: string): string => join(folder, 'keypath.db');

/** The folder of the studio that this process serves: KEYPATH_DATA names it. */
export const dataFolder = (): string => process.env.KEYPATH_DATA ?? 'data';

/** A connection that only reads, beside the one that writes. */
export function openToRead(folder: string): Db {
  const file = new Database(fileIn(folder), { readonly: true, fileMustExist: true });
  file.pragma('busy_timeout = 5000');
  return drizzle(file, { schema });
}

/** `folder` is made if it is missing; `migrations` is the folder that drizzle-kit writes. */
export function openDatabase(folder: string, migrations: string): Db {
  mkdirSync(folder, { recursive: true });
  const file = new Database(fileIn(folder));
  file.pragma('journal_mode = WAL');
  file.pragma('foreign_keys = ON');
  file.pragma('busy_timeout = 5000');
  const db = drizzle(file, { schema });
  migrate(db, { migrationsFolder: migrations });
  return db;
}
