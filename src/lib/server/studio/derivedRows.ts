/**
 * Rows that can be made again from what is stored, and only save time: reading a list does not write. What a page derives is kept in
 * memory at once and written behind its answer; where it cannot be written (a full disk) nothing is lost, and no page fails.
 */
import { LRUCache } from 'lru-cache';
import type { Db } from '../db/open';
import { isOpen, perOpening } from '../db/opening';

interface DerivedRows<T extends object> {
  /** What was derived last under a name, whether it is written yet or not. */
  get(db: Db, name: string): T | undefined;
  keep(db: Db, name: string, value: T): void;
}

/** Milliseconds between two words in the log of rows that cannot be written. */
const SAID_EVERY = 60_000;
let said = -Infinity;

/**
 * @param what the rows are, for the log
 * @param most values kept in memory
 * @param write puts a value into its row
 */
export function derivedRows<T extends object>(
  what: string,
  most: number,
  write: (db: Db, name: string, value: T) => void,
): DerivedRows<T> {
  const kept = perOpening(() => ({
    values: new LRUCache<string, T>({ max: most }),
    waiting: new Map<string, T>(),
  }));
  const writeAll = (db: Db): void => {
    const { waiting } = kept(db);
    if (!isOpen(db)) return;
    for (const [name, value] of waiting) {
      waiting.delete(name);
      try {
        write(db, name, value);
      } catch (error) {
        if (performance.now() - said > SAID_EVERY) console.error(`${what} could not be written:`, error);
        said = performance.now();
        return waiting.clear();
      }
    }
  };
  return {
    get: (db, name) => kept(db).values.get(name),
    keep(db, name, value) {
      const { values, waiting } = kept(db);
      values.set(name, value);
      if (waiting.size === 0) setImmediate(() => writeAll(db));
      waiting.set(name, value);
    },
  };
}
