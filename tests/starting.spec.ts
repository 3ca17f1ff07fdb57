/** How the server starts and ends: in one sentence where it cannot, and with everything where it was killed. */
import { expect, test } from '@playwright/test';
import Database from 'better-sqlite3';
import { spawn, spawnSync, type ChildProcess } from 'node:child_process';
import { mkdtempSync, rmSync, statSync, truncateSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { answers } from './support';

const PORT = 5187;
const settings = (folder: string, port: number | string, more: Record<string, string> = {}) => ({
  ...process.env,
  PORT: String(port),
  KEYPATH_DATA: folder,
  KEYPATH_DEMO: '',
  ...more,
});
const begin = (folder: string, port: number | string, more: Record<string, string> = {}) =>
  spawnSync('node', ['build'], { env: settings(folder, port, more), encoding: 'utf8', timeout: 120_000 });

let folder: string;
let running: ChildProcess | undefined;
test.beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'keypath-start-'));
});
test.afterEach(() => {
  running?.kill('SIGKILL');
  running = undefined;
  rmSync(folder, { recursive: true, force: true });
});

async function serve(more: Record<string, string> = {}): Promise<string> {
  running = spawn('node', ['build'], { env: settings(folder, PORT, more), stdio: 'ignore' });
  const url = `http://127.0.0.1:${PORT}`;
  await answers(url);
  return url;
}

test('a second process, a port in use, and a file that is no studio end with one sentence and a status', async () => {
  await serve();
  const second = begin(folder, PORT + 1);
  expect([second.status, second.stderr.trim()]).toEqual([
    74,
    expect.stringMatching(/^Key Path: Another Key Path is working on the studio in .*\.$/),
  ]);
  const other = mkdtempSync(join(tmpdir(), 'keypath-start-'));
  const inUse = begin(other, PORT);
  expect([inUse.status, inUse.stderr.trim()]).toEqual([
    69,
    `Key Path: Port ${PORT} is in use. Stop what uses it, or name another one in PORT.`,
  ]);
  writeFileSync(join(other, 'keypath.db'), 'this is no database, whatever its name is');
  for (const end of ['-wal', '-shm']) rmSync(join(other, `keypath.db${end}`), { force: true });
  const none = begin(other, PORT + 1);
  expect([none.status, none.stderr]).toEqual([74, expect.stringContaining('is not a Key Path studio')]);
  expect(begin(other, 'many').stderr).toContain('isn’t a port');
  const origin = begin(other, PORT + 1, { ORIGIN: 'piano.example/here' });
  expect([origin.status, origin.stderr.trim()]).toEqual([
    69,
    'Key Path: “piano.example/here” in ORIGIN isn’t an address. Write it like https://piano.example.',
  ]);
  rmSync(other, { recursive: true });
});

test('a studio whose file was cut in half, or whose folder is none, is told so in one sentence', async () => {
  await serve({ KEYPATH_DEMO: '1' });
  running?.kill('SIGKILL');
  const file = join(folder, 'keypath.db');
  const whole = new Database(file);
  whole.pragma('wal_checkpoint(TRUNCATE)');
  whole.close();
  truncateSync(file, Math.floor(statSync(file).size / 2 / 4096) * 4096);
  const cut = begin(folder, PORT + 1);
  expect([cut.status, cut.stderr.trim().split('\n').length]).toEqual([74, 1]);
  expect(cut.stderr).toMatch(/^Key Path: .*damaged/);
  const taken = join(folder, 'a-file');
  writeFileSync(taken, '');
  const none = begin(taken, PORT + 1);
  expect([none.status, none.stderr.trim().split('\n').length]).toEqual([74, 1]);
});

test('a piece whose file is damaged stops nothing: its page says so and gives the file back', async ({
  page,
}) => {
  await serve({ KEYPATH_DEMO: '1' });
  running?.kill('SIGKILL');
  await expect.poll(() => running?.signalCode).toBe('SIGKILL');
  const studio = new Database(join(folder, 'keypath.db'));
  const { id } = studio.prepare("select id from piece where title = 'Kite Weather'").get() as { id: string };
  studio
    .prepare("update piece set source = ?, source_hash = 'damaged' where id = ?")
    .run(Buffer.from('<sco'), id);
  studio.close();
  const url = await serve();
  await page.goto(`${url}/pieces`);
  await expect(page.getByText('Mill Pond Waltz')).toBeVisible();
  const answer = await page.goto(`${url}/pieces/${id}`);
  expect(answer?.status()).toBe(422);
  await expect(page.getByRole('heading', { name: 'This can’t be read' })).toBeVisible();
  const file = await page.request.get(
    url + (await page.getByRole('link', { name: /Download the original file/ }).getAttribute('href'))!,
  );
  expect(await file.text()).toBe('<sco');
});

test('open to others it asks for the passphrase, and counts the tries', async ({ browser }) => {
  spawnSync('./keypath', ['passphrase'], {
    env: settings(folder, PORT),
    input: 'four words to keep\n',
    encoding: 'utf8',
  });
  const url = await serve({ KEYPATH_HOSTS: 'piano.example' });
  const page = await (await browser.newContext()).newPage();
  await page.goto(`${url}/learners`);
  await expect(page).toHaveURL(/\/sign-in\?to=%2Flearners/);
  await page.getByLabel("The studio's passphrase").fill('something else');
  await page.getByRole('button', { name: 'Sign in' }).click();
  await expect(page.getByRole('alert')).toHaveText('That passphrase isn’t right. Try again.');
  await page.getByLabel("The studio's passphrase").fill('four words to keep');
  await page.getByRole('button', { name: 'Sign in' }).click();
  await expect(page).toHaveURL(/\/learners$/);
  const [cookie] = await page.context().cookies();
  expect(cookie).toMatchObject({ httpOnly: true, sameSite: 'Lax' });
  const stranger = await browser.newContext();
  const wrong = (): Promise<number> =>
    stranger.request
      .post(`${url}/sign-in?/enter`, {
        form: { passphrase: 'wrong wrong' },
        headers: { origin: url, accept: 'text/html' },
      })
      .then((answer) => answer.status());
  // Wrong ones make the next of their address wait; the right one still gets in.
  const began = Date.now();
  for (let i = 0; i < 6; i++) expect(await wrong()).toBe(403);
  expect(Date.now() - began).toBeGreaterThan(1400);
  const right = await stranger.request.post(`${url}/sign-in?/enter`, {
    form: { passphrase: 'four words to keep' },
    headers: { origin: url, accept: 'text/html' },
    maxRedirects: 0,
  });
  expect(right.status()).toBe(303);
  await stranger.close();
});

test('killed in the middle of writing it has lost nothing', () => {
  // Seven starts of the server, for what hangs and not for what is slow.
  test.setTimeout(600_000);
  const soak = spawnSync('npx', ['tsx', 'scripts/soak.ts', '6', 'none'], {
    encoding: 'utf8',
    timeout: 580_000,
  });
  expect(soak.stderr).not.toMatch(/is lost|damaged|half made|refers to nothing/);
  expect(soak.stdout).toMatch(/6 kills during \d+ acknowledged writes: none lost/);
});
