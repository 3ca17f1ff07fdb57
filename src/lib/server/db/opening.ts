/**
 * What is kept in memory of a studio belongs to one opening of its file: once another file is in its place, ids and numbers may mean
 * something else. A cache made by `perOpening` ends with the connection that it was filled through.
 */
import type Database from 'better-sqlite3';
import type { Db } from './open';

/** The driver's connection behind the database or a transaction in it. */
const connectionOf = (db: Db): Database.Database =>
  (db as unknown as { session: { client: Database.Database } }).session.client;

/** Whether the file is still open through this database. */
export const isOpen = (db: Db): boolean => connectionOf(db).open;

/**
 * A cache for each opening: what comes back gives the one that belongs to a database, made on first use. Transactions share the
 * cache of their database.
 */
export function perOpening<T extends object>(make: () => T): (db: Db) => T {
  const kept = new WeakMap<object, T>();
  return (db) => {
    const connection = connectionOf(db);
    const known = kept.get(connection) ?? make();
    kept.set(connection, known);
    return known;
  };
}
