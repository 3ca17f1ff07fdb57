import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { pathToFileURL } from 'node:url';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { InputError } from '$core/io/inputError';
import { openDatabase } from '../db/open';
import { openPool, type Pool } from './pool';

const abc = new TextEncoder().encode('X:1\nT:Up\nM:4/4\nL:1/4\nK:G\nG A B c | d4 |]\n');
let folder: string;
const pools: Pool[] = [];
const pool = (limits?: { seconds: number; megabytes: number; quickMegabytes: number }): Pool => {
  const made = openPool({
    folder,
    script: resolve('src/lib/server/pool/worker.ts'),
    execArgv: ['--import', pathToFileURL(resolve('node_modules/tsx/dist/loader.mjs')).href],
    // Compiling the sources takes room as well.
    limits: limits ?? { seconds: 30, megabytes: 3000, quickMegabytes: 3000 },
  });
  pools.push(made);
  return made;
};
beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), 'keypath-'));
  openDatabase(folder, 'drizzle').$client.close();
});
afterAll(async () => {
  await Promise.all(pools.map((p) => p.close()));
  rmSync(folder, { recursive: true });
});

describe('the pool', () => {
  it('reads in a thread, and what is wrong with a file comes back as its sentence', async () => {
    const { work } = pool();
    await expect(work('read', { name: 'up.abc', bytes: abc })).resolves.toMatchObject({ title: 'Up' });
    const broken = work('read', { name: 'broken.xml', bytes: abc.slice(0, 9) });
    await expect(broken).rejects.toBeInstanceOf(InputError);
    // What nobody waits for any more is not begun.
    const gone = new AbortController();
    gone.abort();
    await expect(work('read', { name: 'up.abc', bytes: abc }, { signal: gone.signal })).rejects.toThrow(
      /abort/i,
    );
  }, 30_000);
  it('stops what takes too long, says so, and goes on', async () => {
    const { work } = pool({ seconds: 0.002, megabytes: 224, quickMegabytes: 144 });
    await expect(work('read', { name: 'up.abc', bytes: abc })).rejects.toThrow(
      /took longer than.*was stopped/,
    );
  }, 30_000);
});
