/**
 * One process for one studio. The lock is a transaction on a small file of its own that stays open: the system ends it with the
 * process, however that ends, so that no lock is ever left behind.
 */
import Database from 'better-sqlite3';
import { mkdirSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { StudioProblem, troubleOf } from './trouble';

export interface Lock {
  release(): void;
}

/** Takes the lock of a studio's folder. Throws StudioProblem where another process has it. */
export function lockStudio(folder: string): Lock {
  try {
    mkdirSync(folder, { recursive: true });
    const file = new Database(join(folder, 'keypath.lock'), { timeout: 200 });
    file.exec('begin exclusive');
    return { release: () => file.close() };
  } catch (error) {
    const sentence =
      error instanceof Error && 'code' in error && error.code === 'SQLITE_BUSY'
        ? `Another Key Path is working on the studio in ${resolve(folder)}. Stop it first, or name another folder in KEYPATH_DATA.`
        : troubleOf(error, resolve(folder));
    throw sentence === undefined ? error : new StudioProblem(sentence, { cause: error });
  }
}
