/** Two windows at once, and a backup given back under them: nothing is overwritten silently, and what is shown is what is there. */
import { expect, test, type Page } from '@playwright/test';
import { spawn, type ChildProcess } from 'node:child_process';
import { existsSync, mkdtempSync, readdirSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { answers, benchReady, bring, open, scripted, setLevel } from './support';

const PORT = 5188;
const url = `http://localhost:${PORT}`;
let folder: string;
let server: ChildProcess;
// A studio of its own: what is restored is restored for everybody.
test.beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'keypath-windows-'));
  server = spawn('node', ['build'], {
    env: { ...process.env, PORT: String(PORT), KEYPATH_DATA: folder, KEYPATH_DEMO: '1', ORIGIN: url },
    stdio: ['ignore', 'ignore', 'inherit'],
  });
  await answers(url);
});
test.afterAll(() => {
  server.kill('SIGKILL');
  rmSync(folder, { recursive: true, force: true });
});
test.use({ baseURL: url });

/** The same page in another window of the same browser. */
async function another(page: Page): Promise<Page> {
  const other = await page.context().newPage();
  await open(other, page.url());
  return other;
}
const saved = (page: Page): Promise<void> => expect(page.getByText('Saved', { exact: true })).toBeVisible();

test('lesson notes of two windows are both kept until the teacher has chosen', async ({ page }) => {
  await open(page, '/');
  await page.getByRole('button', { name: 'Start the lesson of Teo' }).click();
  await page.waitForURL(/\/lessons\//);
  const notes = (of: Page) => of.getByLabel('Lesson notes');
  await expect(notes(page)).toBeVisible();
  const other = await another(page);
  await notes(page).fill('Thumb under sooner.');
  await saved(page);
  await notes(other).fill('Softer left hand.');
  const choice = other.getByRole('alert');
  await expect(choice).toContainText('Changed in another window');
  await expect(choice).toContainText('Saved: “Thumb under sooner.”');
  await expect(choice).toContainText('Here: “Softer left hand.”');
  // A reload in the middle of it loses neither.
  await other.reload();
  await expect(other.getByRole('alert')).toContainText('Here: “Softer left hand.”');
  await other.getByRole('button', { name: 'Save both notes' }).click();
  await saved(other);
  await page.reload();
  await expect(notes(page)).toHaveValue('Thumb under sooner.\nSofter left hand.');
  await other.close();
});

test('a class is renamed here and joined there, and a name that both changed is not overwritten', async ({
  page,
}) => {
  await open(page, '/classes/new');
  const name = (of: Page) => of.getByLabel('Name', { exact: true });
  await name(page).fill('Friday duo');
  await page.getByLabel('Teo').check();
  await page.getByLabel('Ottilie').check();
  await page
    .locator('form')
    .filter({ has: name(page) })
    .getByRole('button')
    .click();
  await page.waitForURL(/\/classes\/(?!new$)[^/]+$/);
  await scripted(page);
  const change = (of: Page) => of.getByText('Change the class').click();
  const other = await another(page);
  const third = await another(page);
  for (const one of [page, other, third]) await change(one);
  await name(page).fill('Friday trio');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Friday trio');
  await other.getByRole('checkbox').nth(2).check();
  await other.getByRole('button', { name: 'Save' }).click();
  await expect(other.getByRole('heading', { level: 1 })).toHaveText('Friday trio');
  await change(other);
  await expect(other.getByRole('checkbox', { checked: true })).toHaveCount(3);
  await name(third).fill('Quartet');
  await third.getByRole('button', { name: 'Save' }).click();
  await expect(third.getByRole('alert')).toContainText('the name is “Friday trio”');
  await expect(name(third)).toHaveValue('Quartet');
  // Pressed once more, it is meant; who joined meanwhile stays.
  await third.getByRole('button', { name: 'Save' }).click();
  await expect(third.getByRole('heading', { level: 1 })).toHaveText('Quartet');
  await third.reload();
  await change(third);
  await expect(third.getByRole('checkbox', { checked: true })).toHaveCount(3);
  await other.close();
  await third.close();
});

test('two chunks of a plan are removed in two windows, and each takes back its own', async ({ page }) => {
  await open(page, '/learners');
  await page.getByRole('link', { name: 'Teo', exact: true }).click();
  await page.waitForURL(/\/learners\/[^/]+$/);
  await page.locator('a[href^="/assignments/"]').first().click();
  await page.waitForURL(/\/assignments\//);
  await scripted(page);
  const other = await another(page);
  const chunks = (of: Page) => of.getByRole('list', { name: 'Chunks' }).locator(':scope > li');
  for (const one of [page, other]) await one.getByRole('button', { name: 'Change the plan' }).click();
  const names = await chunks(page).evaluateAll((list) => list.map((li) => li.getAttribute('aria-label')!));
  expect(names.length).toBeGreaterThan(2);
  const drop = (of: Page, name: string) =>
    of.getByRole('button', { name: `Remove ${name}`, exact: true }).click();
  await drop(page, names[0]!);
  await expect(chunks(page)).toHaveCount(names.length - 1);
  await drop(other, names[1]!);
  const left = async (of: Page) =>
    chunks(of).evaluateAll((list) => list.map((li) => li.getAttribute('aria-label')));
  await expect.poll(() => left(other)).toEqual(names.slice(2));
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect.poll(() => left(page)).toEqual([names[0], ...names.slice(2)]);
  await other.close();
});

test('undo takes back what was done in its own window, also after a reload', async ({ page }) => {
  await bring(page, 'Two at the desk');
  await page.getByRole('button', { name: 'Make a version' }).click();
  await benchReady(page);
  const other = await another(page);
  await benchReady(other);
  await setLevel(page, '3');
  await benchReady(page);
  await other.bringToFront();
  await other.getByRole('application', { name: /^Music of/ }).focus();
  await other.keyboard.press('ArrowRight');
  await other.keyboard.press('4');
  await saved(other);
  await page.bringToFront();
  await page.reload();
  await benchReady(page);
  await page.getByRole('application', { name: /^Music of/ }).focus();
  await page.keyboard.press('Control+z');
  await expect(page.getByLabel(/^Level: /)).not.toContainText('3');
  const state = (await (await page.request.get(`${page.url()}/edits`)).json()) as {
    document: { decisions: Record<string, { kind: string }> };
  };
  expect(Object.values(state.document.decisions).map((d) => d.kind)).toEqual(['finger']);
  await other.close();
});

test('after a backup was given back every open page shows what is in it, and edits that', async ({
  page,
}) => {
  await bring(page, 'Given back');
  await page.getByRole('button', { name: 'Make a version' }).click();
  await benchReady(page);
  const bench = page.url();
  const start = await page.getByLabel(/^Level: /).textContent();
  const copy = Buffer.from(await (await page.request.get('/settings/studio/copy')).body());
  await setLevel(page, '5');
  await benchReady(page);
  const studio = await page.context().newPage();
  await open(studio, '/settings/studio');
  await studio
    .getByLabel('Restore a backup')
    .setInputFiles({ name: 'broken.db', mimeType: '', buffer: copy.subarray(0, 50_000) });
  await expect(studio.getByRole('alert')).toContainText('“broken.db” is damaged');
  await studio.getByLabel('Restore a backup').setInputFiles({ name: 'C1.db', mimeType: '', buffer: copy });
  await expect(studio.getByText(/In this backup: \d+ students/)).toBeVisible();
  await studio.getByRole('button', { name: 'Restore', exact: true }).click();
  await expect(studio.getByText('The backup is restored.')).toBeVisible();
  // The bench was open on something else: it is loaded anew by itself.
  await expect(page.getByText('The studio was restored from a backup.')).toBeVisible({ timeout: 20_000 });
  await benchReady(page);
  expect(await page.getByLabel(/^Level: /).textContent()).toBe(start);
  await setLevel(page, '4');
  await benchReady(page);
  await page.reload();
  await benchReady(page);
  await expect(page.getByLabel(/^Level: /)).toContainText('4');
  // What a page of before would still send is not written.
  const late = await page.request.post(`${bench}/edits`, {
    headers: { 'x-keypath-generation': '1', origin: url },
    data: { basedOn: 1, patches: [{ op: 'replace', path: ['recipe', 'level'], value: 6 }] },
  });
  expect(late.status()).toBe(409);
  for (const way of ['incoming', 'outgoing'])
    expect(existsSync(join(folder, way)) ? readdirSync(join(folder, way)) : []).toEqual([]);
  await studio.close();
});
