import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { openDatabase } from '../db/open';
import { inThisThread } from '../pool/work';
import { MELODY, NORA, testStudio, type TestStudio } from '../test/studio';
import { derivedRows } from './derivedRows';
import { giveNow } from './giving';
import { addLearner, findLearner, startFor } from './learners';
import { addPiece } from './pieces';
import { historiesOf, isWhole, piecesOfLearner } from './progress';
import { pieceSummaries } from './summaries';
import { addVersion, findVersion } from './versions';

let studio: TestStudio;
beforeEach(() => {
  studio = testStudio();
});
afterEach(() => {
  vi.restoreAllMocks();
  studio.end();
});
const later = (): Promise<void> => new Promise((resolve) => setImmediate(() => setImmediate(resolve)));

describe('what is derived while a page is read', () => {
  it('is there at once, and written behind the answer', async () => {
    const written: string[] = [];
    const rows = derivedRows<{ n: number }>(
      'Rows',
      10,
      (_db, name, { n }) => void written.push(`${name} ${n}`),
    );
    rows.keep(studio.db, 'a', { n: 1 });
    rows.keep(studio.db, 'b', { n: 2 });
    rows.keep(studio.db, 'a', { n: 3 });
    expect([rows.get(studio.db, 'a'), written]).toEqual([{ n: 3 }, []]);
    await later();
    expect(written).toEqual(['a 3', 'b 2']);
  });
  it('is shown where nothing can be written, as on a full disk, and of no other studio', async () => {
    const said = vi.spyOn(console, 'error').mockImplementation(() => undefined);
    const rows = derivedRows<{ n: number }>('Rows', 10, () => {
      throw Object.assign(new Error('full'), { code: 'SQLITE_FULL' });
    });
    rows.keep(studio.db, 'a', { n: 1 });
    await later();
    expect(said).toHaveBeenCalledOnce();
    expect(rows.get(studio.db, 'a')).toEqual({ n: 1 });
    const other = testStudio();
    expect(rows.get(other.db, 'a')).toBeUndefined();
    other.end();
  });
  it('makes lists that write nothing while they are read', async () => {
    const before = studio.db;
    const piece = addPiece(before, { ...MELODY, rights: 'own work' });
    const nora = findLearner(before, addLearner(before, NORA, '2026-01-01'))!;
    const version = findVersion(before, addVersion(before, piece, startFor(nora)))!;
    const given = await giveNow(before, inThisThread(before), version, nora.id);
    await later();
    // Opened anew, nothing is in memory and nothing is written of what lists show.
    const db = openDatabase(studio.folder, 'drizzle');
    db.$client.exec('delete from assignment_summary; delete from version_summary; delete from piece_summary');
    const work = inThisThread(db);
    const prepare = vi.spyOn(db.$client, 'prepare');
    const written = (): string[] =>
      prepare.mock.calls.map(([sql]) => sql).filter((sql) => !/^\s*select/i.test(sql));
    const [line] = await piecesOfLearner(db, work, nora.id);
    expect(line && isWhole(line)).toBe(true);
    expect(historiesOf(db, [given]).has(given)).toBe(true);
    expect((await pieceSummaries(db, work)).get(piece)).toMatchObject({ measures: 2 });
    const atOnce = written();
    await later();
    expect(written().length).toBeGreaterThan(0);
    expect(atOnce).toEqual([]);
    const count = db.$client.prepare('select count(*) from assignment_summary').pluck().get();
    db.$client.close();
    expect(count).toBe(1);
  });
});
