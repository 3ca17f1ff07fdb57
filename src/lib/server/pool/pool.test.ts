import { mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { pathToFileURL } from 'node:url';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { InputError } from '$core/io/inputError';
import { writeMusicXml } from '$core/io/musicxml/write';
import { readScoreFile } from '$core/io/readScoreFile';
import { openDatabase } from '../db/open';
import { openPool, type Pool } from './pool';

const abc = new TextEncoder().encode('X:1\nT:Up\nM:4/4\nL:1/4\nK:G\nG A B c | d4 |]\n');
let folder: string;
let usual: Pool;
const pools: Pool[] = [];
const pool = (limits?: { seconds: number; megabytes: number; quickMegabytes: number }): Pool => {
  const made = openPool({
    folder,
    script: resolve('src/lib/server/pool/worker.ts'),
    execArgv: ['--import', pathToFileURL(resolve('node_modules/tsx/dist/loader.mjs')).href],
    // Compiling the sources takes room as well, and on a busy machine a minute.
    limits: limits ?? { seconds: 110, megabytes: 3000, quickMegabytes: 3000 },
  });
  pools.push(made);
  return made;
};
beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), 'keypath-'));
  openDatabase(folder, 'drizzle').$client.close();
  usual = pool();
});
afterAll(async () => {
  await Promise.all(pools.map((p) => p.close()));
  rmSync(folder, { recursive: true });
});

/** A file as its form sends it. */
async function sent(name: string, bytes: Uint8Array, keeps = true) {
  const form = new FormData();
  form.append('file', new File([new Uint8Array(bytes)], name));
  const response = new Response(form);
  const type = response.headers.get('content-type')!;
  return { body: new Uint8Array(await response.arrayBuffer()), type, keeps };
}

describe('the pool', () => {
  it('reads in a thread, and what is wrong with a file comes back as its sentence', async () => {
    const { work } = usual;
    await expect(work('brought', await sent('up.abc', abc))).resolves.toMatchObject({
      found: { title: 'Up' },
    });
    const broken = work('brought', await sent('broken.xml', abc.slice(0, 9)));
    await expect(broken).rejects.toBeInstanceOf(InputError);
    // What nobody waits for any more is not begun.
    const gone = new AbortController();
    gone.abort();
    await expect(work('brought', await sent('up.abc', abc), { signal: gone.signal })).rejects.toThrow(
      /abort/i,
    );
  });
  it('stops what takes too long, says so, and goes on', async () => {
    const { work, close } = pool({ seconds: 0.002, megabytes: 224, quickMegabytes: 144 });
    await expect(work('brought', await sent('up.abc', abc))).rejects.toThrow(/took longer than.*was stopped/);
    // Its threads have too little room even to begin here, and would be begun again and again.
    await close();
  });
  it.runIf(process.platform === 'linux')(
    'lets what nobody waits for give way, in a thread of its own',
    async () => {
      const niceOfThreads = (): number[] =>
        readdirSync('/proc/self/task').map((id) => {
          // What follows the name in brackets: the 19th field of all is how far it gives way.
          const fields = readFileSync(`/proc/self/task/${id}/stat`, 'utf8').split(') ').at(-1)!.split(' ');
          return Number(fields[16]);
        });
      const { work } = usual;
      await work('brought', await sent('up.abc', abc));
      const before = niceOfThreads().filter((nice) => nice === 19).length;
      await expect(work('learnHouseHand', null, { isLong: true, isLater: true })).resolves.toMatchObject({
        decisions: 0,
      });
      expect(niceOfThreads().filter((nice) => nice === 19)).toHaveLength(before + 1);
    },
  );
  it('ends what nobody waits for any more before its next step', async () => {
    const { work } = usual;
    await work('brought', await sent('up.abc', abc));
    const measures = Array.from({ length: 3000 }, () => 'G A B c').join(' | ');
    const { score } = readScoreFile(
      'long.abc',
      new TextEncoder().encode(`X:1\nT:Long\nM:4/4\nL:1/4\nK:G\n${measures} |]\n`),
    );
    const leaves = new AbortController();
    // This format is read in steps.
    const shown = await sent('long.xml', new TextEncoder().encode(writeMusicXml(score)), false);
    const left = work('brought', shown, { signal: leaves.signal });
    setTimeout(() => leaves.abort(new Error('The page has gone')), 50);
    await expect(left).rejects.toThrow('The page has gone');
    // The thread is the same, and works.
    await expect(work('brought', await sent('up.abc', abc))).resolves.toMatchObject({
      found: { title: 'Up' },
    });
  });
});
