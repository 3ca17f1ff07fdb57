import Database from 'better-sqlite3';
import { existsSync, mkdtempSync, readdirSync, rmSync, truncateSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { DEFAULT_RECIPE } from '$core/version/recipe';
import { documentOf } from '$core/version/document';
import { lockStudio } from '../db/lock';
import { fileIn, openDatabase, type OpenDb } from '../db/open';
import { troubleOf } from '../db/trouble';
import { MELODY, NORA, testStudio } from '../test/studio';
import { dailyCopy, checkCopy, copiesIn, daysToForget, giveBack, takeCopy } from './copies';
import { dossierOf, dossierText } from './dossier';
import { addLearner, findLearner, listLearners } from './learners';
import { addLesson, lessonsOf } from './lessons';
import { once } from './once';
import { addPiece, findPiece, listPieces, sectionsOf, setSections } from './pieces';
import { deleteForGood, discard, emptyOld, listTrash, takeBack } from './trash';
import { addVersion, findVersion } from './versions';

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
    expect(() => giveBack(folder, copy, 'drizzle')).toThrow(/newer Key Path/);
    truncateSync(copy, 40_000);
    expect(() => giveBack(folder, copy, 'drizzle')).toThrow(/no whole copy/);
    writeFileSync(copy, 'something else');
    expect(() => giveBack(folder, copy, 'drizzle')).toThrow(/no whole copy/);
    new Database(join(folder, 'other.db')).exec('create table t (a)').close();
    expect(() => checkCopy(join(folder, 'other.db'), 'drizzle')).toThrow(/no whole copy/);
    expect(names(db)).toEqual(['Nora']);
    expect(existsSync(join(folder, 'before'))).toBe(false);
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
    await dailyCopy(db.$client, folder, 'drizzle', day(3, 1));
    await dailyCopy(db.$client, folder, 'drizzle', day(3, 1));
    await dailyCopy(db.$client, folder, 'drizzle', day(3, 2));
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

describe('everything about a learner', () => {
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
    expect(() => openDatabase(join(none, 'keypath.db'), 'drizzle')).toThrow(/is no folder/);
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
    for (let i = 0; i < 200; i++) addLesson(db, learner(`Learner ${i}`), '2026-01-01', 'x'.repeat(500));
    const half = other();
    db.$client.exec(`vacuum into '${fileIn(half)}'`);
    truncateSync(fileIn(half), 81_920);
    expect(() => openDatabase(half, 'drizzle')).toThrow(/damaged.*restore/);
    rmSync(half, { recursive: true });
  });
  it('has a sentence for a full disk, a folder that cannot be written, and a disk that fails', () => {
    expect(troubleOf({ code: 'SQLITE_FULL' }, '/d')).toMatch(/disk is full/);
    expect(troubleOf({ code: 'ENOSPC' }, '/d')).toMatch(/disk is full/);
    expect(troubleOf({ code: 'SQLITE_READONLY_DBMOVED' }, '/d')).toMatch(/cannot be written/);
    expect(troubleOf({ code: 'SQLITE_IOERR_WRITE' }, '/d')).toMatch(/does not answer/);
    expect(troubleOf(new Error('something else'), '/d')).toBeUndefined();
  });
  it('is another process, as long as that one lives', () => {
    const lock = lockStudio(folder);
    expect(() => lockStudio(folder)).toThrow(/Another Key Path/);
    lock.release();
    lockStudio(folder).release();
  });
});
