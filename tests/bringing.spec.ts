/** Bringing a piece: by button, by dropping, and what happens when the file is no score. */
import { expect, test, type Page } from '@playwright/test';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { bring, pianoFile } from './support';

const pieceCount = async (page: Page): Promise<number> => {
  await page.goto('/pieces');
  await page.waitForLoadState('networkidle');
  return page.locator('main ul > li').count();
};

test('a file dropped on the page is read', async ({ page }) => {
  await page.goto('/pieces');
  await page.waitForLoadState('networkidle');
  const { name, buffer } = pianoFile('Dropped Song');
  const transfer = await page.evaluateHandle(
    ([fileName, text]) => {
      const data = new DataTransfer();
      data.items.add(new File([text!], fileName!, { type: 'application/xml' }));
      return data;
    },
    [name, buffer.toString('utf8')],
  );
  await page.dispatchEvent('main', 'drop', { dataTransfer: transfer });
  await expect(page.getByRole('heading', { level: 1, name: 'Dropped Song' })).toBeVisible();
});

test('the source stays as it was received', async ({ page }) => {
  await bring(page, 'Kept Song');
  const download = page.waitForEvent('download');
  await page.getByRole('link', { name: 'Kept Song.musicxml' }).click();
  const stream = await (await download).createReadStream();
  const chunks: Buffer[] = [];
  for await (const chunk of stream) chunks.push(chunk as Buffer);
  expect(Buffer.concat(chunks).equals(pianoFile('Kept Song').buffer)).toBe(true);
});

/** From a real file: so large a one would take half a minute through the test's own channel. */
function onDisk(file: { name: string; buffer: Buffer }): string {
  const path = join(mkdtempSync(join(tmpdir(), 'keypath-file-')), file.name);
  writeFileSync(path, file.buffer);
  return path;
}

const half = pianoFile('Half').buffer;
const bad = [
  {
    what: 'words',
    file: { name: 'list.xml', buffer: Buffer.from('milk, eggs, a new metronome') },
    says: 'not a MusicXML file',
  },
  {
    what: 'a score cut in half',
    file: { name: 'half.musicxml', buffer: half.subarray(0, half.length / 2) },
    says: /ends in the middle|not well-formed/,
  },
  {
    what: 'an empty file',
    file: { name: 'none.xml', buffer: Buffer.alloc(0) },
    says: 'is empty',
  },
  {
    what: '50 MB',
    file: { name: 'huge.xml', buffer: Buffer.alloc(49 * 1024 * 1024, '<a>') },
    says: 'up to 10 MB',
  },
];
for (const { what, file, says } of bad)
  test(`${what}: a clear message, and nothing changes`, async ({ page }) => {
    const before = await pieceCount(page);
    await page.locator('input[type=file]').setInputFiles(onDisk(file));
    await expect(page.getByRole('alert')).toContainText(says);
    await expect(page.getByRole('alert')).toContainText('Nothing was kept.');
    expect(await pieceCount(page)).toBe(before);
  });

test('a large file sent past the page is refused by the server, without a trace', async ({
  page,
  request,
  baseURL,
}) => {
  const before = await pieceCount(page);
  const send = (bytes: number) =>
    request.post('/pieces?/upload', {
      headers: { origin: baseURL!, 'x-sveltekit-action': 'true' },
      multipart: {
        file: { name: 'huge.xml', mimeType: 'application/xml', buffer: Buffer.alloc(bytes, '<a>') },
      },
    });
  const answer = await send(11 * 1024 * 1024);
  expect((await answer.json()).status).toBe(413);
  expect(await pieceCount(page)).toBe(before);
});

test('a form from another site is refused', async ({ request }) => {
  const answer = await request.post('/learners/new', {
    headers: { origin: 'https://elsewhere.example' },
    form: { name: 'Nobody' },
  });
  expect(answer.status()).toBe(403);
});
