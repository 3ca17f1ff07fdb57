/** The first hour: an empty studio, from the first page to a printed one; and what is asked on the way. */
import { expect, test, type Locator } from '@playwright/test';
import { spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { allPages, answers, benchReady, expectAccessible, pianoFile, scripted } from './support';

const PORT = 5186;
const url = `http://127.0.0.1:${PORT}`;
let folder: string;
let server: ChildProcess;

test.beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'keypath-first-'));
  const { KEYPATH_DEMO: _demo, ...env } = process.env;
  server = spawn('node', ['build'], {
    env: { ...env, PORT: String(PORT), ORIGIN: url, KEYPATH_DATA: folder },
    stdio: 'ignore',
  });
  await answers(url);
});
test.afterAll(() => {
  server.kill();
  rmSync(folder, { recursive: true, force: true });
});

test('from an empty studio to a printed page in at most 16 clicks and 7 pages', async ({ browser }) => {
  const context = await browser.newContext({ locale: 'de-AT', timezoneId: 'Europe/Vienna' });
  const page = await context.newPage();
  let clicks = 0;
  const pages = new Set<string>();
  page.on('framenavigated', (frame) => {
    if (frame === page.mainFrame()) pages.add(new URL(frame.url()).pathname);
  });
  const click = async (what: Locator): Promise<void> => {
    clicks += 1;
    await what.click();
  };
  await page.goto(url);
  await scripted(page);
  // Proposed from the browser: one click.
  await expect(page.getByLabel('Time zone')).toHaveValue('Europe/Vienna');
  await expect(page.getByRole('combobox', { name: 'Note names' })).toHaveValue('german');
  await expectAccessible(page);
  await click(page.getByRole('button', { name: 'Use these' }));
  await expect(page.getByLabel('Time zone')).toHaveCount(0);
  await expect(page.getByRole('heading', { level: 1 })).toContainText(/tag, |Mittwoch, /);
  const steps = page.getByRole('region', { name: 'Three steps to the first lesson' });
  await expect(steps.getByText('done')).toHaveCount(0);
  await click(steps.getByRole('link', { name: 'Add a piece' }));
  await scripted(page);
  clicks += 1; // the button that opens the computer's own list of files
  await page.locator('input[type=file]').setInputFiles(pianoFile('First Song'));
  await click(page.getByRole('button', { name: 'Save this piece' }));
  await click(page.getByRole('button', { name: 'Make a version' }));
  await benchReady(page);
  await click(page.getByRole('button', { name: 'More', exact: true }));
  await click(page.getByRole('menuitem', { name: 'Assign to a student' }));
  await page.getByLabel('Your first student’s name').fill('Nora');
  await click(page.getByRole('button', { name: 'Add and assign' }));
  await expect(page.getByText('Assigned to Nora.')).toBeVisible();
  await click(page.getByRole('button', { name: 'Close', exact: true }));
  await click(page.getByRole('button', { name: 'More', exact: true }));
  await click(page.getByRole('menuitem', { name: 'Handout' }));
  expect(await allPages(page)).toBeGreaterThan(0);
  const printed = page.evaluate(
    () => new Promise<void>((done) => ((window.print = () => done()), undefined)),
  );
  await click(page.getByRole('button', { name: 'Print' }));
  await printed;
  console.log(`first hour: ${clicks} clicks, ${pages.size} pages`);
  expect(clicks).toBeLessThanOrEqual(16);
  expect(pages.size).toBeLessThanOrEqual(7);
  // German names of notes, where a B natural is an H.
  await page.goto(`${url}/learners`);
  await expect(page.getByText('First Song')).toBeVisible();
  await page.goto(url);
  await expect(
    page.getByRole('region', { name: 'Three steps to the first lesson' }).getByText('done'),
  ).toHaveCount(3);
  await context.close();
});
