/** Copies of a whole studio: one file each, taken while people work, looked at before it counts, and given back with care. */
import Database from 'better-sqlite3';
import { existsSync, mkdirSync, readdirSync, renameSync, rmSync, copyFileSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { InputError } from '$core/io/inputError';
import { checkAge, checkWhole, fileIn } from '../db/open';
import { StudioProblem, troubleOf } from '../db/trouble';

/** Daily copies that are kept; besides them the first one of each month. */
const DAYS_KEPT = 14;

/** What a copy holds. */
export interface CopyFacts {
  readonly learners: number;
  readonly pieces: number;
  readonly versions: number;
}

/** The files that SQLite keeps beside a database. */
const BESIDE = ['-wal', '-shm', '-journal'];

const removeBeside = (path: string): void => BESIDE.forEach((end) => rmSync(path + end, { force: true }));

/**
 * Takes a copy by SQLite's own online backup: what is written meanwhile is in it or not, never half. The copy is looked at before it
 * gets its name. Throws StudioProblem.
 */
export async function takeCopy(
  from: Database.Database,
  path: string,
  migrations: string,
): Promise<CopyFacts> {
  const half = `${path}.part`;
  try {
    rmSync(half, { force: true });
    await from.backup(half);
    // One file, that needs none beside it.
    const made = new Database(half);
    made.pragma('journal_mode = delete');
    made.close();
    const facts = checkCopy(half, migrations);
    renameSync(half, path);
    return facts;
  } catch (error) {
    rmSync(half, { force: true });
    const sentence = troubleOf(error, resolve(path, '..'));
    throw sentence === undefined ? error : new StudioProblem(sentence, { cause: error });
  } finally {
    removeBeside(half);
  }
}

/** Looks at a copy: whether it is a whole studio of this Key Path or an older one. Throws InputError where it is not. */
export function checkCopy(path: string, migrations: string): CopyFacts {
  if (!existsSync(path)) throw new InputError(`There is no file ${path}.`);
  let file: Database.Database | undefined;
  try {
    file = new Database(path, { readonly: true, fileMustExist: true });
    checkWhole(file, resolve(path, '..'));
    checkAge(file, resolve(path, '..'), migrations);
    if ((file.pragma('foreign_key_check') as unknown[]).length > 0)
      throw new InputError('Things in this copy refer to others that are not in it.');
    const count = (table: string): number =>
      file!.prepare(`select count(*) from ${table}`).pluck().get() as number;
    return { learners: count('learner'), pieces: count('piece'), versions: count('version') };
  } catch (error) {
    if (error instanceof InputError) throw error;
    const isNewer = error instanceof StudioProblem && error.message.includes('newer Key Path');
    throw new InputError(
      isNewer
        ? 'This copy was made by a newer Key Path than this one. Start the newer one to give it back.'
        : 'This file is no whole copy of a studio: it may have been cut off, or be something else.',
      { cause: error },
    );
  } finally {
    file?.close();
  }
}

/**
 * Puts a copy in place of the studio in a folder; nothing may have that studio open. What was there is kept beside it, and where it was
 * put comes back; null where there was nothing. Throws InputError, and changes nothing, where the copy is not good.
 */
export function giveBack(folder: string, copy: string, migrations: string, at = new Date()): string | null {
  checkCopy(copy, migrations);
  mkdirSync(folder, { recursive: true });
  const [current, next] = [fileIn(folder), `${fileIn(folder)}.next`];
  rmSync(next, { force: true });
  copyFileSync(copy, next);
  checkCopy(next, migrations);
  removeBeside(next);
  let kept: string | null = null;
  if (existsSync(current)) {
    const before = join(folder, 'before');
    mkdirSync(before, { recursive: true });
    kept = join(before, `keypath-${at.toISOString().replace(/[:.]/g, '-')}.db`);
    for (const end of ['', ...BESIDE]) if (existsSync(current + end)) renameSync(current + end, kept + end);
  }
  renameSync(next, current);
  return kept;
}

const DAILY = /^keypath-(\d{4}-\d{2}-\d{2})\.db$/;

export const copiesFolder = (folder: string): string => join(folder, 'copies');

/** The days of which there are copies, the newest first. */
export const copiesIn = (folder: string): string[] =>
  existsSync(copiesFolder(folder))
    ? readdirSync(copiesFolder(folder))
        .flatMap((name) => DAILY.exec(name)?.[1] ?? [])
        .sort()
        .reverse()
    : [];

/** The file of a day's copy. */
export const copyOf = (folder: string, day: string): string =>
  join(copiesFolder(folder), `keypath-${day}.db`);

/** Days whose copies need not be kept any more: neither among the last ones nor the first of their month. */
export function daysToForget(days: readonly string[]): string[] {
  const sorted = [...days].sort();
  const firsts = new Set(
    sorted.filter((day, i) => i === 0 || day.slice(0, 7) !== sorted[i - 1]!.slice(0, 7)),
  );
  return sorted.slice(0, -DAYS_KEPT).filter((day) => !firsts.has(day));
}

/** Takes today's copy where there is none, and forgets those that are old. */
export async function dailyCopy(
  from: Database.Database,
  folder: string,
  migrations: string,
  today = new Date().toISOString().slice(0, 10),
): Promise<void> {
  const days = copiesIn(folder);
  if (!days.includes(today)) {
    mkdirSync(copiesFolder(folder), { recursive: true });
    await takeCopy(from, copyOf(folder, today), migrations);
    days.push(today);
  }
  for (const day of daysToForget(days)) rmSync(copyOf(folder, day), { force: true });
}
