/** A studio as an older Key Path left it: every revision, decision and step is there afterwards, under its new name. */
import Database from 'better-sqlite3';
import { cpSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { writeMusicXml } from '$core/io/musicxml/write';
import { scoreFrom } from '$core/test/shorthand';
import { listed } from '$core/version/document';
import { openDatabase } from '../db/open';
import { hashOf } from './contentKey';
import { carryOver } from './carryOver';
import { findPiece } from './pieces';
import { inThisThread } from '../pool/work';
import { holding } from '$core/lessons/events';
import { slotsOf } from './slots';
import { findProgress } from './progress';
import { documentAt, findVersion, savedState, stepBack } from './versions';

let folder: string;
beforeEach(() => (folder = mkdtempSync(join(tmpdir(), 'keypath-older-'))));
afterEach(() => rmSync(folder, { recursive: true }));

const bytes = new TextEncoder().encode(
  writeMusicXml(
    scoreFrom({
      title: 'Older',
      key: 'C',
      time: { beats: 4, beatType: 4 },
      right: 'C5:4 | D5:4 | E5:4 | F5:4',
      left: 'C3:4 | G2:4 | C3:4 | F2:4',
      chords: 'C | G | C | F',
    }),
  ),
);

const recipe = {
  level: 3,
  style: 'sing-along',
  key: null,
  texture: null,
  tune: null,
  rhythm: null,
  introduction: 2,
  reach: { right: 8, left: 8 },
  keyboard: 61,
  counting: 'numbers',
  countFor: 'right',
  cutTime: 'halves',
  feel: null,
  pedal: 'none',
  sections: [],
};

/** A data folder with the tables of before, and one version of three revisions, given to a learner who has practised. */
function olderStudio(source: Uint8Array): void {
  const migrations = join(folder, 'migrations');
  cpSync('drizzle', migrations, { recursive: true });
  const journal = join(migrations, 'meta', '_journal.json');
  const all = JSON.parse(readFileSync(journal, 'utf8')) as { entries: { tag: string }[] };
  const before = all.entries.filter(({ tag }) => tag < '0004');
  writeFileSync(journal, JSON.stringify({ ...all, entries: before }));
  openDatabase(folder, migrations);
  const file = new Database(join(folder, 'keypath.db'));
  const add = (table: string, row: Record<string, unknown>): void => {
    const names = Object.keys(row);
    file
      .prepare(`insert into ${table} (${names.join()}) values (${names.map((n) => `@${n}`).join()})`)
      .run(row);
  };
  const at = '2026-05-01T10:00:00.000Z';
  add('piece', {
    id: 'p',
    title: 'Older',
    composer: '',
    rights: 'own work',
    source_name: 'older.musicxml',
    source: Buffer.from(source),
    created_at: at,
  });
  add('learner', {
    id: 'l',
    name: 'Nora',
    since: '2026-01-01',
    level: 2,
    reach_right: 8,
    reach_left: 8,
    keyboard: 61,
    has_pedal: 0,
    weekday: 3,
    time: '15:30',
  });
  const revisions = [
    [],
    [{ kind: 'pedal', measure: 3, style: 'long' }],
    [
      { kind: 'pedal', measure: 3, style: 'long' },
      { kind: 'finger', note: 'L2-0-bass', finger: 4 },
    ],
  ].map((decisions) => ({ recipe: JSON.stringify(recipe), decisions: JSON.stringify(decisions) }));
  add('version', { id: 'v', piece_id: 'p', ...revisions[2]!, revision: 3, created_at: at });
  revisions.forEach((row, i) => add('revision', { version_id: 'v', number: i + 1, ...row, created_at: at }));
  add('assignment', { id: 'a', version_id: 'v', learner_id: 'l', goal_tempo: 80, created_at: at });
  for (const chunk of ['0-1', '2-5'])
    add('progress_event', { assignment_id: 'a', chunk, step: 'right', tempo: 50, undone: 0, created_at: at });
  for (const [step, tempo, undone] of [
    ['left', 40, 0],
    ['left', null, 1],
    ['memory', null, 1],
    ['faster', 60, 0],
    ['goal', null, 0],
    ['goal', null, 1],
  ] as const)
    add('progress_event', { assignment_id: 'a', chunk: '0-1', step, tempo, undone, created_at: at });
  file.close();
}

describe('an older studio', () => {
  it('keeps its versions as edits, its decisions by the source, and what was learned', async () => {
    olderStudio(bytes);
    const db = openDatabase(folder, 'drizzle');
    expect(carryOver(db)).toBe(0);
    expect(findVersion(db, 'v')).toMatchObject({ edit: 2, level: 3, style: 'sing-along', decided: 3 });
    const shown = (number: number): unknown[] =>
      listed(documentAt(db, 'v', number)).map((d) => [d.kind, Object.values(d.at)[0], d.value]);
    expect(shown(0)).toEqual([['pedal', true, 'none']]);
    expect(shown(2)).toEqual([
      ['pedal', true, 'none'],
      ['pedal', 'm1', 'long'],
      ['finger', 'Lm0-0-bass', 4],
    ]);
    expect(listed(stepBack(db, 'v', 'undo')!.document)).toHaveLength(2);
    const { progress, assignment } = (await findProgress(db, inThisThread(db), 'a'))!;
    expect(assignment.edit).toBe(2);
    expect(progress.states).toEqual(['both', 'both', ...Array(4).fill('right')]);
    // What was taken back is withdrawn; two rungs have become one ladder; a weekday has become a slot.
    expect(holding(progress.events).map((e) => [e.step, e.hand, e.tempo])).toEqual([
      ['right', 'right', 50],
      ['right', 'right', 50],
      ['ladder', 'both', 60],
    ]);
    expect(slotsOf(db, 'l', '2026-01-01')).toMatchObject([{ weekday: 3, time: '15:30', from: '2026-01-01' }]);
    // Done once: nothing is left of the older tables.
    expect(carryOver(db)).toBe(0);
    expect(savedState(db, 'v')!.edit).toBe(3);
    expect(() => db.all('select 1 from older_version')).toThrow(/no such table/);
  });
  it('keeps what cannot be read where it is, says so, and opens all the same', () => {
    const said = vi.spyOn(console, 'error').mockImplementation(() => undefined);
    olderStudio(new TextEncoder().encode('no music'));
    const db = openDatabase(folder, 'drizzle');
    expect(carryOver(db)).toBe(1);
    expect(said).toHaveBeenCalledOnce();
    expect(findPiece(db, 'p')).toBeDefined();
    expect(db.all('select id from older_version')).toHaveLength(1);
    said.mockRestore();
  });
  it('knows its files by their bytes', () => {
    expect(hashOf(bytes)).toBe(hashOf(Buffer.from(bytes)));
    expect(hashOf(bytes)).not.toBe(hashOf(bytes.slice(1)));
  });
});
