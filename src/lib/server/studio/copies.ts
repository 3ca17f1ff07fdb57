/** Copies of a whole studio: one file each, taken while people work, looked at before it counts, and given back with care. */
import Database from 'better-sqlite3';
import { existsSync, mkdirSync, readdirSync, renameSync, rmSync } from 'node:fs';
import { dirname, join, resolve } from 'node:path';
import { InputError } from '$core/io/inputError';
import { beginGeneration, fileIn } from '../db/open';
import { StudioProblem, troubleOf } from '../db/trouble';
import {
  BESIDE,
  checkCopy,
  readyCopy,
  removeStudioFile,
  type CopyBrought,
  type CopyFacts,
} from './copyCheck';

/** Daily copies that are kept; besides them the first one of each month. */
const DAYS_KEPT = 14;

/** Looks at a copy that was just taken; where a studio is large, in another thread. */
type Check = (brought: CopyBrought) => CopyFacts | Promise<CopyFacts>;

/** What a copy is called until it was looked at. */
const HALF = '.part';

/**
 * Takes a copy by SQLite's own online backup: what is written meanwhile is in it or not, never half. The copy is looked at before it
 * gets its name. Throws StudioProblem, with the folder that is at fault: that of the studio, or that of the copy.
 */
export async function takeCopy(
  from: Database.Database,
  path: string,
  migrations: string,
  check: Check = checkCopy,
): Promise<CopyFacts> {
  const half = `${path}${HALF}`;
  const folder = resolve(path, '..');
  if (!existsSync(folder))
    throw new StudioProblem(`There is no folder ${folder}. Choose one that exists for the backup.`);
  try {
    removeStudioFile(half);
    await from.backup(half);
    // One file, that needs none beside it.
    const made = new Database(half);
    made.pragma('journal_mode = delete');
    made.close();
    const facts = await check({ path: half, migrations });
    renameSync(half, path);
    return facts;
  } catch (error) {
    // A copy is what its studio is: what is wrong in it is wrong there.
    const isOfStudio = error instanceof InputError || /^SQLITE_(CORRUPT|NOTADB)/.test(codeOf(error));
    const sentence = isOfStudio
      ? troubleOf({ code: 'SQLITE_CORRUPT' }, resolve(dirname(from.name)))
      : troubleOf(error, folder);
    throw sentence === undefined ? error : new StudioProblem(sentence, { cause: error });
  } finally {
    removeStudioFile(half);
  }
}

const codeOf = (error: unknown): string => String((error as { code?: unknown } | null)?.code ?? '');

/** What stays of the studio that is there when another takes its place: who may come in. */
export interface Doors {
  readonly passphrase: string | null;
  /** The browser that gives the copy back stays signed in. */
  readonly session: {
    readonly tokenHash: string;
    readonly createdAt: string;
    readonly lastSeen: string;
  } | null;
}

/** The doors of the studio in a folder; undefined where there is none, or none that can be read. */
export function doorsIn(folder: string): Doors | undefined {
  if (!existsSync(fileIn(folder))) return undefined;
  let file: Database.Database | undefined;
  try {
    file = new Database(fileIn(folder), { readonly: true });
    const passphrase = file.prepare('select passphrase from studio').pluck().get() as
      string | null | undefined;
    return { passphrase: passphrase ?? null, session: null };
  } catch {
    // A damaged studio is what a copy is given back for.
    return undefined;
  } finally {
    file?.close();
  }
}

/** A copy that was made ready begins a life of its own: a generation, the doors of the studio that it replaces, and no session of its own. */
function open(next: string, doors: Doors | undefined): void {
  const file = new Database(next);
  try {
    beginGeneration(file);
    file.exec('delete from session');
    if (!doors) return;
    const { changes } = file.prepare('update studio set passphrase = ?').run(doors.passphrase);
    if (changes === 0 && doors.passphrase !== null)
      file
        .prepare('insert into studio (id, name, passphrase) values (1, ?, ?)')
        .run('Your studio', doors.passphrase);
    if (doors.session)
      file
        .prepare('insert into session (token_hash, created_at, last_seen) values (?, ?, ?)')
        .run(doors.session.tokenHash, doors.session.createdAt, doors.session.lastSeen);
  } finally {
    file.close();
  }
}

/**
 * Puts a copy that was made ready (readyCopy) in place of the studio in a folder; nothing may have that studio open. What was there is
 * kept beside it, and where it was put comes back; null where there was nothing.
 */
export function putInPlace(
  folder: string,
  next: string,
  doors: Doors | undefined,
  at = new Date(),
): string | null {
  open(next, doors);
  const current = fileIn(folder);
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

/**
 * Gives a copy back while no server works on the folder. Throws InputError, and changes nothing, where the copy is not good.
 */
export function giveBack(folder: string, copy: string, migrations: string, at = new Date()): string | null {
  mkdirSync(folder, { recursive: true });
  const next = `${fileIn(folder)}.next`;
  try {
    readyCopy({ path: copy, migrations }, next);
    return putInPlace(folder, next, doorsIn(folder), at);
  } finally {
    removeStudioFile(next);
  }
}

/** Copies that came in or went out while a server ran. */
export const passingFolder = (folder: string, way: 'incoming' | 'outgoing'): string => join(folder, way);

/** Takes away what a server that was ended in the middle left of copies that it was taking, sending or given. */
export function sweep(folder: string): void {
  for (const way of ['incoming', 'outgoing'] as const)
    rmSync(passingFolder(folder, way), { recursive: true, force: true });
  removeStudioFile(`${fileIn(folder)}.next`);
  if (!existsSync(copiesFolder(folder))) return;
  for (const name of readdirSync(copiesFolder(folder)))
    if (name.includes(HALF)) rmSync(join(copiesFolder(folder), name), { force: true });
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
  { today = new Date().toISOString().slice(0, 10), check = checkCopy as Check } = {},
): Promise<void> {
  const days = copiesIn(folder);
  if (!days.includes(today)) {
    mkdirSync(copiesFolder(folder), { recursive: true });
    await takeCopy(from, copyOf(folder, today), migrations, check);
    days.push(today);
  }
  for (const day of daysToForget(days)) rmSync(copyOf(folder, day), { force: true });
}
