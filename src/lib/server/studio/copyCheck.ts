/**
 * Whether a file is a whole backup of a studio, of this Key Path or an older one: looked at before it takes the place of anything. All of
 * it happens on a copy of the file, which is brought up to date on the way. Every sentence names the file that was brought.
 */
import { levelsSchema } from '$core/arrange/levels';
import { sectionStartsSchema } from '$core/analysis/sections';
import { decisionsSchema } from '$core/decisions/registry';
import { patchSchema } from '$core/edits/edit';
import { houseHandSchema } from '$core/fingering/houseHand';
import { InputError } from '$core/io/inputError';
import { planSchema, plannedStepSchema } from '$core/lessons/plan';
import { weekItemSchema } from '$core/lessons/record';
import { partChoicesSchema } from '$core/players/parts';
import { documentSchema } from '$core/version/document';
import { choicesSchema } from '$lib/paper/choices';
import Database from 'better-sqlite3';
import { drizzle } from 'drizzle-orm/better-sqlite3';
import { migrate } from 'drizzle-orm/better-sqlite3/migrator';
import { copyFileSync, existsSync, rmSync } from 'node:fs';
import { basename, resolve } from 'node:path';
import { z } from 'zod';
import { checkAge, openDatabase } from '../db/open';
import { StudioProblem, troubleOf } from '../db/trouble';
import { carryOver } from './carryOver';

/** What a copy holds. */
export interface CopyFacts {
  readonly learners: number;
  readonly pieces: number;
  readonly versions: number;
}

/** A copy as it was brought. */
export interface CopyBrought {
  readonly path: string;
  /** What whoever brought it calls it; the name of its file where nothing is said. */
  readonly name?: string | undefined;
  readonly migrations: string;
}

const damaged = (name: string): string =>
  `“${name}” is damaged; it may have been cut off. Choose another backup. Nothing was changed.`;
const foreign = (name: string): string =>
  `“${name}” isn’t a Key Path backup. Choose a file that Key Path saved. Nothing was changed.`;

/** What the driver says of a file that is damaged, and of one that is something else. */
const SENTENCES: Readonly<Record<string, (name: string) => string>> = {
  SQLITE_CORRUPT: damaged,
  SQLITE_NOTADB: foreign,
  // No such table: an empty file is an empty database.
  SQLITE_ERROR: foreign,
};

/** Runs a look at a file; what is wrong with the file is one sentence that names it. */
function looking<T>(name: string, look: () => T): T {
  try {
    return look();
  } catch (error) {
    if (error instanceof InputError) throw error;
    if (error instanceof StudioProblem)
      throw new InputError(
        error.message.includes('newer Key Path')
          ? `“${name}” was made by a newer Key Path than this one. Start the newer one to restore it. Nothing was changed.`
          : foreign(name),
        { cause: error },
      );
    const code = (error as { code?: unknown }).code;
    const say = typeof code === 'string' ? SENTENCES[code.split('_').slice(0, 2).join('_')] : undefined;
    if (!say) throw error;
    throw new InputError(say(name), { cause: error });
  }
}

const countIn = (file: Database.Database, table: string): number =>
  file.prepare(`select count(*) from "${table}"`).pluck().get() as number;

const factsOf = (file: Database.Database): CopyFacts => ({
  learners: countIn(file, 'learner'),
  pieces: countIn(file, 'piece'),
  versions: countIn(file, 'version'),
});

/** What a copy that was just taken holds, if it is whole. Throws InputError where it is not. */
export function checkCopy({ path, name = basename(path), migrations }: CopyBrought): CopyFacts {
  if (!existsSync(path)) throw new InputError(`There is no file ${path}.`);
  return looking(name, () => {
    const file = new Database(path, { readonly: true, fileMustExist: true });
    try {
      if (file.pragma('integrity_check(1)', { simple: true }) !== 'ok') throw new InputError(damaged(name));
      checkAge(file, resolve(path, '..'), migrations);
      checkKeys(file, name);
      return factsOf(file);
    } finally {
      file.close();
    }
  });
}

function checkKeys(file: Database.Database, name: string): void {
  const [first] = file.pragma('foreign_key_check') as { table: string }[];
  if (first)
    throw new InputError(
      `“${name}” isn’t complete: something in its table “${first.table}” refers to what isn’t in it. Choose another backup. Nothing was changed.`,
    );
}

/**
 * Makes a copy that can take a studio's place: `next` is the file brought, brought up to date. Throws InputError, and leaves nothing,
 * where something is wrong with the file; StudioProblem where there is no room for it.
 */
export function readyCopy(brought: CopyBrought, next: string): CopyFacts {
  const { path, name = basename(path), migrations } = brought;
  try {
    checkCopy(brought);
    copyFileSync(path, next);
    return looking(name, () => {
      onlyTables(next, name);
      updated(next, migrations);
      const file = new Database(next);
      try {
        file.pragma('foreign_keys = ON');
        checkSchema(file, name, migrations);
        checkKeys(file, name);
        checkTexts(file, name);
        checkEdits(file, name);
        file.pragma('journal_mode = delete');
        return factsOf(file);
      } finally {
        file.close();
      }
    });
  } catch (error) {
    removeStudioFile(next);
    const sentence = error instanceof InputError ? undefined : troubleOf(error, resolve(next, '..'));
    throw sentence === undefined ? error : new StudioProblem(sentence, { cause: error });
  }
}

/** The files that SQLite keeps beside a database. */
export const BESIDE = ['-wal', '-shm', '-journal'] as const;

/** Takes a database away with all that lies beside it. */
export const removeStudioFile = (path: string): void =>
  ['', ...BESIDE].forEach((end) => rmSync(path + end, { force: true }));

interface Thing {
  readonly type: string;
  readonly name: string;
  readonly sql: string | null;
}

const thingsIn = (file: Database.Database): Thing[] =>
  file
    .prepare(`select type, name, sql from sqlite_master where name not like 'sqlite\\_%' escape '\\'`)
    .all() as Thing[];

/** Tables and indexes are all that a studio has; anything else would act by itself while the file is brought up to date. */
function onlyTables(path: string, name: string): void {
  const file = new Database(path, { readonly: true });
  try {
    const other = thingsIn(file).find(
      ({ type, sql }) => !['table', 'index'].includes(type) || /^\s*create\s+virtual/i.test(sql ?? ''),
    );
    if (other) throw new InputError(differs(name, other));
  } finally {
    file.close();
  }
}

const differs = (name: string, { type, name: thing }: Thing): string =>
  `“${name}” isn’t a backup that Key Path saved: its ${type} “${thing}” isn’t as Key Path makes it. Nothing was changed.`;

/** Runs the migrations, and what SQL alone cannot carry over. */
function updated(path: string, migrations: string): void {
  const db = openDatabase(path, migrations, { isFile: true });
  try {
    carryOver(db);
    db.$client.pragma('journal_mode = delete');
  } finally {
    db.$client.close();
  }
}

/** Tables that only wait for what an older studio held (carryOver). */
const CARRIED_OVER = /^older_/;

/** Throws where tables and indexes are not those that migrations make of an empty file. */
function checkSchema(file: Database.Database, name: string, migrations: string): void {
  const fresh = new Database(':memory:');
  try {
    migrate(drizzle(fresh), { migrationsFolder: migrations });
    const plain = ({ type, name: thing, sql }: Thing): string =>
      `${type} ${thing} ${(sql ?? '').replace(/\s+/g, ' ')}`;
    const wanted = new Map(thingsIn(fresh).map((t) => [plain(t), t]));
    const found = new Map(thingsIn(file).map((t) => [plain(t), t]));
    const missing = [...wanted].find(([text, t]) => !found.has(text) && !CARRIED_OVER.test(t.name));
    const added = [...found].find(([text]) => !wanted.has(text));
    const other = missing ?? added;
    if (other) throw new InputError(differs(name, other[1]));
  } finally {
    fresh.close();
  }
}

/** Each column that holds JSON, with what may be in it and what it is called; null where only its being JSON counts. */
const TEXTS: readonly (readonly [table: string, column: string, schema: z.ZodType, called: string])[] = [
  ['studio', 'levels', levelsSchema, 'the levels'],
  ['studio', 'house_hand', houseHandSchema, 'the fingering preferences'],
  ['paper', 'choices', choicesSchema, 'a handout’s settings'],
  ['finger_example', 'example', z.record(z.string(), z.unknown()), 'a fingering example'],
  ['plan_template', 'steps', z.array(plannedStepSchema), 'the steps of a template'],
  ['piece', 'parts', partChoicesSchema, 'the parts of a piece'],
  ['piece', 'sections', sectionStartsSchema, 'the sections of a piece'],
  ['piece', 'mends', decisionsSchema, 'the corrections of a piece'],
  ['edit', 'patches', patchSchema, 'a change of a version'],
  ['edit', 'inverse', patchSchema, 'a change of a version'],
  ['snapshot', 'document', documentSchema, 'a version'],
  ['assignment', 'plan', planSchema, 'a practice plan'],
  ['lesson', 'week', z.array(weekItemSchema), 'the practice for a week'],
];

function checkTexts(file: Database.Database, name: string): void {
  for (const [table, column, schema, called] of TEXTS)
    for (const text of file
      .prepare(`select "${column}" from "${table}" where "${column}" is not null`)
      .pluck()
      .iterate()) {
      const parsed = jsonOf(text);
      if (parsed === undefined || !schema.safeParse(parsed).success)
        throw new InputError(
          `“${name}” is damaged: ${called} in it can’t be read. Choose another backup. Nothing was changed.`,
        );
    }
}

function jsonOf(text: unknown): unknown {
  try {
    return JSON.parse(String(text));
  } catch {
    return undefined;
  }
}

/** Every version has its beginning and each of its edits up to the newest. */
function checkEdits(file: Database.Database, name: string): void {
  const older = file.prepare(`select 1 from sqlite_master where name = 'older_version'`).get();
  const broken = file
    .prepare(
      `select v.id from version v where ${older ? 'v.id not in (select id from older_version) and' : ''}
       (not exists (select 1 from snapshot s where s.version_id = v.id and s.number = 0)
        or (select count(*) from edit e where e.version_id = v.id) <> v.edit
        or coalesce((select max(number) from edit e where e.version_id = v.id), 0) <> v.edit)`,
    )
    .get();
  if (broken)
    throw new InputError(
      `“${name}” isn’t complete: some changes of a version are missing. Choose another backup. Nothing was changed.`,
    );
}
