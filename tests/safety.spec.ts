/** What must not happen to a studio: other sites writing in it, words that run as script, what was typed being lost. */
import { expect, test } from '@playwright/test';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { writeMusicXml } from '../src/lib/core/io/musicxml/write';
import { scoreFrom } from '../src/lib/core/test/shorthand';
import type { Note } from '../src/lib/core/score/score';
import { bring, expectAccessible, open } from './support';

const FORM = (action: string, more: string): string => `<!doctype html>${more}
  <form id="f" method="post" action="${action}">
    <input name="name" value="Stranger"><input name="level" value="1"><input name="reachRight" value="8">
    <input name="reachLeft" value="8"><input name="keyboard" value="61">
  </form><script>document.getElementById('f').submit()</script>`;

test('a page of another site cannot write, with or without a referrer, nor from a sandboxed frame', async ({
  page,
  baseURL,
}) => {
  const action = `${baseURL}/learners/new`;
  const pages: Record<string, string> = {
    '/plain': FORM(action, ''),
    '/silent': FORM(action, '<meta name="referrer" content="no-referrer">'),
    '/framed': `<!doctype html><iframe sandbox="allow-scripts allow-forms" src="/plain"></iframe>`,
    '/frames-us': `<!doctype html><iframe src="${baseURL}/"></iframe>`,
  };
  const site = createServer((request, response) => {
    response.setHeader('content-type', 'text/html');
    response.end(pages[request.url ?? ''] ?? '');
  });
  await new Promise<void>((listening) => site.listen(0, '127.0.0.1', listening));
  const { port } = site.address() as AddressInfo;
  try {
    for (const path of ['/plain', '/silent', '/framed']) {
      const answered = page.waitForResponse(
        (r) => r.url().startsWith(action) && r.request().method() === 'POST',
      );
      await page.goto(`http://127.0.0.1:${port}${path}`);
      expect((await answered).status()).toBe(403);
    }
    await page.goto(`http://127.0.0.1:${port}/frames-us`);
    await expect(page.frameLocator('iframe').getByRole('heading')).toHaveCount(0);
  } finally {
    site.close();
  }
  await open(page, '/learners');
  await expect(page.getByText('Stranger')).toHaveCount(0);
});

test('words in a piece are words, wherever they are shown', async ({ page }) => {
  const faults: string[] = [];
  page.on('dialog', (dialog) => {
    faults.push(dialog.message());
    void dialog.dismiss();
  });
  page.on('pageerror', (error) => faults.push(error.message));
  const evil = `<img src=x onerror=alert(1)>"'</text><script>alert(2)</script>`;
  const score = scoreFrom({
    title: `Words ${evil}`,
    key: 'C',
    time: { beats: 4, beatType: 4 },
    right: 'C5:1 D5:1 E5:1 F5:1 | G5:4',
    left: 'C3:4 | G2:4',
  });
  const part = score.parts[0]!;
  const xml = writeMusicXml({
    ...score,
    composer: evil,
    measures: score.measures.map((m, i) => (i === 0 ? { ...m, section: evil } : m)),
    parts: [
      {
        ...part,
        name: evil,
        notes: part.notes.map((n, i): Note =>
          i === 0
            ? { ...n, lyrics: [{ line: 'words', verse: 1, text: evil, syllabic: 'single' } as never] }
            : n,
        ),
      },
    ],
  });
  await open(page, '/pieces');
  await page.locator('input[type=file]').setInputFiles({
    name: `${evil.replaceAll('/', '')}.musicxml`,
    mimeType: 'application/xml',
    buffer: Buffer.from(xml),
  });
  await page.getByRole('button', { name: 'Save this piece' }).click();
  await page.waitForURL(/\/pieces\/[^/]+$/);
  await page.getByRole('button', { name: 'Make a version' }).click();
  await page.waitForURL(/\/versions\/[^/]+$/);
  await expect(page.locator('.sheet svg').first()).toBeVisible({ timeout: 30_000 });
  // The words that count a measure.
  const version = page.url();
  const saved = await (await page.request.get(`${version}/edits`)).json();
  const answer = await page.request.post(`${version}/edits`, {
    data: {
      basedOn: saved.edit,
      patches: [
        {
          op: 'add',
          path: ['decisions', 'count m0'],
          value: { kind: 'count', at: { measure: 'm0' }, value: evil },
        },
      ],
    },
  });
  expect(answer.status()).toBe(200);
  for (const path of [version, `${version}/handout`, `${version}/history`, `${version}/levels`, '/pieces']) {
    await page.goto(path);
    await page.waitForTimeout(400);
    expect(await page.locator('img[src="x"]').count()).toBe(0);
  }
  expect(faults).toEqual([]);
});

test('a note that cannot be sent is kept through a reload, and sent when the server is back', async ({
  page,
}) => {
  await open(page, '/learners');
  await page.getByRole('link', { name: 'Teo', exact: true }).click();
  await page.waitForURL(/\/learners\/[^/]+$/);
  const note = page.getByLabel('Lesson notes and practice');
  const words = `Wrists loose in the second line, ${Date.now()}.`;
  await page.route('**/learners/**', (route) =>
    route.request().method() === 'POST' ? route.abort('connectionrefused') : route.continue(),
  );
  await note.fill(words);
  await page.getByRole('button', { name: 'Add note' }).click();
  await expect(page.getByText(/You’re offline/)).toBeVisible();
  await expect(note).toHaveValue(words);
  // The window is closed in the middle of it.
  page.on('dialog', (dialog) => void dialog.accept());
  await page.reload();
  await expect(page.getByLabel('Lesson notes and practice')).toHaveValue(words);
  await page.getByRole('button', { name: 'Add note' }).click();
  await expect(page.getByText(/You’re offline/)).toBeVisible();
  await page.unroute('**/learners/**');
  await expect(page.getByText('Sent.')).toBeVisible();
  await expect(page.getByRole('listitem').filter({ hasText: words })).toHaveCount(1);
  await expect(page.getByLabel('Lesson notes and practice')).toHaveValue('');
});

test('the trash gives a piece back, and a copy of the studio is taken and looked at', async ({ page }) => {
  await bring(page, 'Thrown Away');
  await page.getByRole('button', { name: 'Delete: Thrown Away' }).click();
  await page.waitForURL(/\/pieces$/);
  await expect(page.getByRole('link', { name: 'Thrown Away' })).toHaveCount(0);
  await page.getByRole('link', { name: 'Studio' }).click();
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Restore: the piece Thrown Away' }).click();
  await expect(page.getByText('Thrown Away')).toHaveCount(0);
  const download = page.waitForEvent('download');
  await page.getByRole('link', { name: 'Download a backup' }).click();
  const copy = await (await download).path();
  await page
    .getByLabel('Restore a backup')
    .setInputFiles({ name: 'no copy.db', mimeType: '', buffer: Buffer.from('x') });
  await expect(page.getByRole('alert')).toContainText('“no copy.db” isn’t a Key Path backup');
  await page.getByLabel('Restore a backup').setInputFiles(copy);
  await expect(page.getByText(/In this backup: \d+ students/)).toBeVisible();
  await open(page, '/pieces');
  await expect(page.getByRole('link', { name: 'Thrown Away' })).toBeVisible();
});
