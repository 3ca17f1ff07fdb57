import Database from 'better-sqlite3';
import {
  copyFileSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  truncateSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { DEFAULT_RECIPE } from '$core/version/recipe';
import { documentOf } from '$core/version/document';
import { lockStudio } from '../db/lock';
import { fileIn, generationIn, openDatabase, type OpenDb } from '../db/open';
import { troubleOf } from '../db/trouble';
import { MELODY, NORA, testStudio } from '../test/studio';
import {
  copiesFolder,
  copiesIn,
  dailyCopy,
  daysToForget,
  doorsIn,
  giveBack,
  sweep,
  takeCopy,
} from './copies';
import { checkCopy, readyCopy } from './copyCheck';
import { dossierOf, dossierText } from './dossier';
import { addLearner, findLearner, listLearners } from './learners';
import { addLesson, lessonsOf } from './lessons';
import { once } from './once';
import { addPiece, findPiece, listPieces, sectionsOf, setSections } from './pieces';
import { deleteForGood, discard, emptyOld, listTrash, takeBack } from './trash';
import { addVersion, documentAt, findVersion, saveEdit } from './versions';

let folder: string;
let db: OpenDb;
beforeEach(() => {
  ({ folder, db } = testStudio());
});
afterEach(() => {
  db.$client.close();
  rmSync(folder, { recursive: true });
});

const bring = (): string => addPiece(db, { ...MELODY, rights: 'own work' });
const learner = (name: string): string => addLearner(db, { ...NORA, name }, '2026-01-01');
const names = (from: OpenDb): string[] => listLearners(from).map((l) => l.name);

describe('what was acknowledged', () => {
  it('is on the disk: every write is waited for', () => {
    // 2 is FULL, as SQLite counts.
    expect(db.$client.pragma('synchronous', { simple: true })).toBe(2);
  });
  it('is made once, however often a form arrives', () => {
    const token = 'a form that was filled in';
    const made = [1, 2].map(() => once(db, token, () => learner('Twin')));
    expect(made[0]).toBe(made[1]);
    expect(names(db)).toEqual(['Twin']);
    once(db, `${token} again`, () => learner('Other'));
    expect(names(db)).toEqual(['Other', 'Twin']);
    // Nothing is remembered of what could not be made.
    expect(() =>
      once(db, `${token} third`, () => {
        throw new Error('no');
      }),
    ).toThrow();
    expect(once(db, `${token} third`, () => 'made')).toBe('made');
  });
  it('is not overwritten by whoever had something else before them', () => {
    const id = bring();
    expect(setSections(db, id, [{ measure: 0, name: 'Up' }], null)).toBe(true);
    expect(setSections(db, id, [{ measure: 1 }], null)).toBe(false);
    expect(sectionsOf(db, id)).toEqual([{ measure: 0, name: 'Up' }]);
  });
});

describe('a copy', () => {
  it('is one file, and gives back what was there; what is there now is kept', async () => {
    learner('Nora');
    const copy = join(folder, 'copy.db');
    expect(await takeCopy(db.$client, copy, 'drizzle')).toEqual({ learners: 1, pieces: 0, versions: 0 });
    expect(readdirSync(folder).filter((name) => name.startsWith('copy.db'))).toEqual(['copy.db']);
    learner('Later');
    db.$client.close();
    const kept = giveBack(folder, copy, 'drizzle');
    db = openDatabase(folder, 'drizzle');
    expect(names(db)).toEqual(['Nora']);
    const before = new Database(kept!, { readonly: true });
    expect(before.prepare('select name from learner order by name').pluck().all()).toEqual(['Later', 'Nora']);
    before.close();
  });
  it('that is cut off, something else, or of a newer Key Path takes the place of nothing', async () => {
    learner('Nora');
    const copy = join(folder, 'copy.db');
    await takeCopy(db.$client, copy, 'drizzle');
    const newer = new Database(copy);
    newer.prepare('insert into __drizzle_migrations (hash, created_at) values (?, ?)').run('x', 9e15);
    newer.close();
    expect(() => giveBack(folder, copy, 'drizzle')).toThrow(/“copy\.db” was made by a newer Key Path/);
    truncateSync(copy, 40_000);
    expect(() => giveBack(folder, copy, 'drizzle')).toThrow(/“copy\.db” is damaged/);
    writeFileSync(copy, 'something else that is no database, whatever its name is');
    expect(() => giveBack(folder, copy, 'drizzle')).toThrow(/“copy\.db” isn’t a Key Path backup/);
    writeFileSync(copy, 'x');
    expect(() => giveBack(folder, copy, 'drizzle')).toThrow(/“copy\.db” isn’t a Key Path backup/);
    new Database(join(folder, 'other.db')).exec('create table t (a)').close();
    expect(() => checkCopy({ path: join(folder, 'other.db'), migrations: 'drizzle' })).toThrow(
      /“other\.db” isn’t a Key Path backup/,
    );
    expect(names(db)).toEqual(['Nora']);
    expect(existsSync(join(folder, 'before'))).toBe(false);
    expect(readdirSync(folder).filter((name) => name.includes('next'))).toEqual([]);
  });
  it('is not what Key Path makes: nothing of it gets in', async () => {
    const version = addVersion(db, bring(), documentOf(DEFAULT_RECIPE));
    const copy = join(folder, 'copy.db');
    const tamperings: [string, RegExp][] = [
      ['create trigger t after insert on lesson begin delete from learner; end', /trigger “t” isn’t/],
      ['create view v as select * from learner', /view “v” isn’t/],
      ['create table more (a)', /table “more” isn’t/],
      ['alter table learner drop column about', /table “learner” isn’t/],
      ['drop index assignment_learner', /index “assignment_learner” isn’t/],
      [`update snapshot set document = '{"recipe":{}}'`, /a version in it can’t be read/],
      [`update studio set levels = '[]'`, /the levels in it can’t be read/],
      [`update piece set mends = 'no'`, /the corrections of a piece in it can’t be read/],
      [`update version set edit = 3`, /some changes of a version are missing/],
      [`pragma foreign_keys = off; delete from piece`, /“version” refers to what isn’t in it/],
    ];
    db.$client.exec(`insert into studio (id, name) values (1, 'S')`);
    for (const [sql, says] of tamperings) {
      await takeCopy(db.$client, copy, 'drizzle');
      new Database(copy).exec(sql).close();
      expect(() => giveBack(folder, copy, 'drizzle'), sql).toThrow(says);
      expect(() => giveBack(folder, copy, 'drizzle'), sql).toThrow(/“copy\.db”/);
    }
    expect(findVersion(db, version)).toBeDefined();
  });
  it('brings no way in: the passphrase stays, and no session of it lives on', async () => {
    db.$client.exec(
      `insert into studio (id, name, passphrase) values (1, 'S', 'old'); insert into session values ('of the copy', 'x', 'x')`,
    );
    const copy = join(folder, 'copy.db');
    await takeCopy(db.$client, copy, 'drizzle');
    db.$client.exec(`update studio set passphrase = 'present'`);
    const before = generationIn(db.$client);
    expect(doorsIn(folder)).toEqual({ passphrase: 'present', session: null });
    db.$client.close();
    giveBack(folder, copy, 'drizzle');
    db = openDatabase(folder, 'drizzle');
    expect(db.$client.prepare('select passphrase from studio').pluck().all()).toEqual(['present']);
    expect(db.$client.prepare('select count(*) from session').pluck().get()).toBe(0);
    expect(generationIn(db.$client)).not.toBe(before);
    // Started anew on the same file, it is of the same generation: its pages go on.
    const now = generationIn(db.$client);
    db.$client.close();
    db = openDatabase(folder, 'drizzle');
    expect(generationIn(db.$client)).toBe(now);
  });
  it('of what is kept in memory shows nothing of the file before', async () => {
    const id = addVersion(db, bring(), documentOf(DEFAULT_RECIPE));
    const copy = join(folder, 'copy.db');
    await takeCopy(db.$client, copy, 'drizzle');
    const change = (level: number): void =>
      void saveEdit(db, id, {
        patches: [{ op: 'replace', path: ['recipe', 'level'], value: level }],
        basedOn: 0,
      });
    change(5);
    db.$client.close();
    giveBack(folder, copy, 'drizzle');
    db = openDatabase(folder, 'drizzle');
    change(4);
    expect(documentAt(db, id, 1).recipe.level).toBe(4);
  });
  it('that was being taken when the server was ended leaves nothing behind', async () => {
    await dailyCopy(db.$client, folder, 'drizzle', { today: '2026-01-01' });
    const left = [
      join(copiesFolder(folder), 'keypath-2026-01-02.db.part'),
      join(copiesFolder(folder), 'keypath-2026-01-02.db.part-journal'),
      join(folder, 'keypath.db.next'),
    ];
    for (const file of left) writeFileSync(file, 'half');
    for (const way of ['incoming', 'outgoing']) {
      mkdirSync(join(folder, way));
      writeFileSync(join(folder, way, 'x.db'), 'half');
    }
    sweep(folder);
    expect(readdirSync(copiesFolder(folder))).toEqual(['keypath-2026-01-01.db']);
    expect(readdirSync(folder).filter((n) => !n.startsWith('keypath.db') || n.endsWith('.next'))).toEqual([
      'copies',
    ]);
  });
  it('that cannot be taken names the studio or the place, whichever is at fault', async () => {
    await expect(takeCopy(db.$client, '/nowhere/at/all.db', 'drizzle')).rejects.toThrow(/\/nowhere\/at/);
    const other = join(folder, 'stick');
    mkdirSync(other);
    db.$client.exec(
      `pragma foreign_keys = off; insert into lesson (id, learner_id, date, note) values ('l', 'none', 'x', '')`,
    );
    await expect(takeCopy(db.$client, join(other, 'c.db'), 'drizzle')).rejects.toThrow(
      `in ${folder} is damaged`,
    );
    expect(readdirSync(other)).toEqual([]);
  });
  it('of an older Key Path is brought up to date before it takes the place', () => {
    const older = mkdtempSync(join(tmpdir(), 'keypath-older-'));
    const first = join(older, 'first');
    const journal = JSON.parse(readFileSync('drizzle/meta/_journal.json', 'utf8')) as {
      entries: { idx: number; tag: string }[];
    };
    mkdirSync(join(first, 'meta'), { recursive: true });
    const entries = journal.entries.slice(0, 9);
    writeFileSync(join(first, 'meta', '_journal.json'), JSON.stringify({ ...journal, entries }));
    for (const { tag } of entries) copyFileSync(join('drizzle', `${tag}.sql`), join(first, `${tag}.sql`));
    openDatabase(older, first).$client.close();
    const next = join(older, 'next.db');
    expect(readyCopy({ path: join(older, 'keypath.db'), migrations: 'drizzle' }, next)).toEqual({
      learners: 0,
      pieces: 0,
      versions: 0,
    });
    rmSync(older, { recursive: true });
  });
  it('is taken once a day; the last fourteen and the first of each month are kept', async () => {
    const day = (month: number, date: number): string =>
      `2026-${String(month).padStart(2, '0')}-${String(date).padStart(2, '0')}`;
    const days = [1, 2, 3].flatMap((month) => Array.from({ length: 28 }, (_, i) => day(month, i + 1)));
    const left = days.filter((d) => !daysToForget(days).includes(d));
    expect(left).toEqual([
      day(1, 1),
      day(2, 1),
      day(3, 1),
      ...Array.from({ length: 14 }, (_, i) => day(3, 15 + i)),
    ]);
    await dailyCopy(db.$client, folder, 'drizzle', { today: day(3, 1) });
    await dailyCopy(db.$client, folder, 'drizzle', { today: day(3, 1) });
    await dailyCopy(db.$client, folder, 'drizzle', { today: day(3, 2) });
    expect(copiesIn(folder)).toEqual([day(3, 2), day(3, 1)]);
  });
});

describe('the trash', () => {
  it('gives back each kind of thing with what belongs to it, for thirty days', () => {
    const [piece, nora] = [bring(), learner('Nora')];
    const version = addVersion(db, piece, documentOf(DEFAULT_RECIPE));
    const lesson = addLesson(db, nora, '2026-02-01', 'Shoulders down.');
    const seen = (): unknown[] => [
      listPieces(db).length,
      findPiece(db, piece) !== undefined,
      findVersion(db, version) !== undefined,
      names(db).length,
      findLearner(db, nora) !== undefined,
      lessonsOf(db, nora).length,
    ];
    const whole = seen();
    for (const [kind, id] of [
      ['piece', piece],
      ['version', version],
      ['learner', nora],
      ['lesson', lesson],
    ] as const) {
      expect(discard(db, kind, id)).toBe(true);
      expect(discard(db, kind, id)).toBe(false);
      expect(seen()).not.toEqual(whole);
      expect(listTrash(db).map((t) => [t.kind, t.id])).toEqual([[kind, id]]);
      emptyOld(db, Date.now() + 29 * 86_400_000);
      expect(takeBack(db, kind, id)).toBe(true);
      expect(seen()).toEqual(whole);
    }
    // A version of a piece that is put away is put away with it.
    discard(db, 'piece', piece);
    expect(findVersion(db, version)).toBeUndefined();
    expect(deleteForGood(db, 'learner', nora)).toBe(false);
    emptyOld(db, Date.now() + 31 * 86_400_000);
    expect(listTrash(db)).toEqual([]);
    expect(takeBack(db, 'piece', piece)).toBe(false);
  });
});

describe('everything about a student', () => {
  it('can be handed out, and deleted with nothing left', () => {
    const nora = learner('Nora');
    addLesson(db, nora, '2026-02-01', 'Shoulders down.');
    const dossier = dossierOf(db, nora)!;
    expect(dossier).toMatchObject({ learner: { name: 'Nora' }, lessons: [{ note: 'Shoulders down.' }] });
    expect(dossierText(dossier)).toContain('2026-02-01  Shoulders down.');
    discard(db, 'learner', nora);
    expect(dossierOf(db, nora)).toBeUndefined();
    deleteForGood(db, 'learner', nora);
    for (const table of ['learner', 'lesson', 'assignment', 'progress_event'])
      expect(db.$client.prepare(`select count(*) from ${table}`).pluck().get()).toBe(0);
  });
});

describe('what is wrong with the place', () => {
  const other = (): string => mkdtempSync(join(tmpdir(), 'keypath-'));
  it('is said in one sentence with what to do', () => {
    const none = other();
    writeFileSync(fileIn(none), 'this is no database, whatever its name is');
    expect(() => openDatabase(none, 'drizzle')).toThrow(/not a Key Path studio.*restore/);
    expect(() => openDatabase(join(none, 'keypath.db'), 'drizzle')).toThrow(/isn’t a folder/);
    expect(() => openDatabase(other(), '/nowhere')).toThrow(/migrations is missing.*KEYPATH_MIGRATIONS/);
    const foreign = other();
    new Database(fileIn(foreign)).exec('create table recipes (a)').close();
    expect(() => openDatabase(foreign, 'drizzle')).toThrow(/not a Key Path studio/);
    const newer = other();
    const made = openDatabase(newer, 'drizzle');
    made.$client.prepare('insert into __drizzle_migrations (hash, created_at) values (?, ?)').run('x', 9e15);
    made.$client.close();
    expect(() => openDatabase(newer, 'drizzle')).toThrow(/newer Key Path/);
    for (const of of [none, foreign, newer]) rmSync(of, { recursive: true });
  });
  it('also where the file was cut in half', () => {
    for (let i = 0; i < 200; i++) addLesson(db, learner(`Student ${i}`), '2026-01-01', 'x'.repeat(500));
    const half = other();
    db.$client.exec(`vacuum into '${fileIn(half)}'`);
    truncateSync(fileIn(half), 81_920);
    expect(() => openDatabase(half, 'drizzle')).toThrow(/damaged.*restore/);
    rmSync(half, { recursive: true });
  });
  it('has a sentence for a full disk, a folder that cannot be written, and a disk that fails', () => {
    expect(troubleOf({ code: 'SQLITE_FULL' }, '/d')).toMatch(/disk is full/);
    expect(troubleOf({ code: 'ENOSPC' }, '/d')).toMatch(/disk is full/);
    expect(troubleOf({ code: 'SQLITE_READONLY_DBMOVED' }, '/d')).toMatch(/can’t be written/);
    expect(troubleOf({ code: 'SQLITE_IOERR_WRITE' }, '/d')).toMatch(/isn’t responding/);
    expect(troubleOf(new Error('something else'), '/d')).toBeUndefined();
  });
  it('is another process, as long as that one lives', () => {
    const lock = lockStudio(folder);
    expect(() => lockStudio(folder)).toThrow(/Another Key Path/);
    lock.release();
    lockStudio(folder).release();
  });
});
