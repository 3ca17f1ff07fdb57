/** Bringing a piece: by button, by dropping, and what happens when the file is no score. */
import { expect, test, type Page } from '@playwright/test';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { writeMusicXml } from '../src/lib/core/io/musicxml/write';
import { scoreFrom } from '../src/lib/core/test/shorthand';
import { readScoreFile } from '../src/lib/core/io/readScoreFile';
import { benchReady, bring, expectAccessible, open, pianoFile } from './support';

/** How many pieces of a title are kept. Other tests bring theirs meanwhile. */
const countOf = async (page: Page, title: RegExp): Promise<number> => {
  await open(page, '/pieces');
  return page.locator('main').getByRole('link', { name: title }).count();
};

/** What a piece would be called that was read from one of the bad files. */
const BAD = /^(list|half|none|huge|untitled)$/i;

test('a file dropped on the page is read', async ({ page }) => {
  await open(page, '/pieces');
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
  await page.getByRole('button', { name: 'Save this piece' }).click();
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

test('a look shows the music and what was left out, and keeps nothing until it is told to', async ({
  page,
}) => {
  await open(page, '/pieces');
  await page.locator('input[type=file]').setInputFiles({
    name: 'brook.abc',
    mimeType: 'text/vnd.abc',
    buffer: Buffer.from('X:1\nT:Brook Melody\nM:3/4\nL:1/4\nK:G\nD|"G"G B d|"D7"A2 \u00b6 F|"G"G2|]\n'),
  });
  const dialog = page.getByRole('dialog', { name: 'Is this the piece?' });
  await expect(dialog.locator('.sheet svg').first()).toBeVisible();
  await expect(dialog).toContainText('G major, 3/4. 3 measures after a pickup, 7 notes, 3 chord names.');
  await expect(dialog).toContainText('Line 6: a character is left out (“¶”, at character 19).');
  await expectAccessible(page);
  await dialog.getByRole('button', { name: 'Cancel' }).click();
  expect(await countOf(page, /Brook Melody/)).toBe(0);
});

test('a melody is typed, and kept under the name it is given', async ({ page }) => {
  await open(page, '/pieces');
  await page.getByRole('button', { name: 'Type or paste it' }).click();
  await page.getByLabel('A melody in ABC, or chords with their beats').fill('L: 1/4\nK: F\nF G A B | c4 |]');
  await page.getByRole('button', { name: 'Read this text' }).click();
  await page.getByLabel('Title').fill('Typed Melody');
  await page.getByRole('button', { name: 'Save this piece' }).click();
  await expect(page.getByRole('heading', { level: 1, name: 'Typed Melody' })).toBeVisible();
  await expect(page.getByText('F G A B♭ C D E')).toBeVisible();
});

test('of a tune book several tunes are brought at once, or one is looked at', async ({ page }) => {
  const text = [
    'M:3/4\nL:1/4',
    'X:1\nT:Heron Walk\nK:G\nG A B | c2 B | A2 F | G3 |]\n',
    'X:2\nT:Nothing Yet\nK:C\n',
    'X:3\nT:Otter Walk\nK:D\nP:AB\nD F A | d3 | A F D | D3 |]\n',
  ].join('\n');
  const file = { name: 'walks.abc', mimeType: 'text/plain', buffer: Buffer.from(text) };
  await open(page, '/pieces');
  await page.locator('input[type=file]').setInputFiles(file);
  const dialog = page.getByRole('dialog');
  await expect(dialog).toContainText('It holds 3 tunes.');
  await dialog.getByRole('button', { name: 'Select all' }).click();
  await dialog.getByRole('button', { name: 'Bring 3 tunes' }).click();
  await expect(dialog).toContainText('2 tunes are saved');
  await expect(dialog.getByRole('alert')).toContainText('Nothing Yet: The ABC text holds no notes.');
  await dialog.getByRole('button', { name: 'Done' }).click();
  await expect(page.getByRole('link', { name: 'Heron Walk' })).toBeVisible();
  await expect(page.getByRole('link', { name: 'Otter Walk' })).toBeVisible();
  // One tune is looked at like any other file.
  await page.locator('input[type=file]').setInputFiles(file);
  await dialog.getByLabel('Otter Walk').check();
  await dialog.getByRole('button', { name: 'Preview' }).click();
  await expect(dialog).toContainText('Is this the piece?');
  await expect(dialog.getByLabel('Title')).toHaveValue('Otter Walk');
});

test('a chord chart pasted anywhere becomes a version to sing to', async ({ page }) => {
  await open(page, '/pieces');
  await page.evaluate(() => {
    const clipboardData = new DataTransfer();
    clipboardData.setData('text/plain', 'Pasted Song\n\nVerse 1:\nF / / | Bb/C / / |\nDown the lane\n');
    window.dispatchEvent(new ClipboardEvent('paste', { clipboardData }));
  });
  await expect(page.getByRole('dialog')).toContainText('no melody');
  await page.getByRole('button', { name: 'Save this piece' }).click();
  await page.waitForURL('**/pieces/*');
  const piece = new URL(page.url()).pathname;
  await page.getByRole('button', { name: 'Make a version' }).click();
  await benchReady(page);
  await expect(page.getByText(/accompaniment notes/)).toBeVisible();
  await expect(page.locator('.sheet svg').first()).toContainText(/B\s*♭/);
  // How low and high it goes is asked for where somebody sings it: a chart doesn’t say.
  await open(page, `${piece}/keys`);
  const range = page.getByRole('form', { name: 'Range of the song' });
  await expect(page.getByRole('list', { name: 'Best three keys' })).toBeVisible();
  await expect(range).toHaveCount(0);
  await page.getByRole('combobox', { name: 'For', exact: true }).selectOption('Berit');
  await expect(range).toContainText('There’s no melody here');
  await range.getByLabel('Lowest note').fill('c5');
  await range.getByLabel('Highest note').fill('A3');
  await range.getByRole('button', { name: 'Compare for the voice' }).click();
  await expect(range.getByRole('alert')).toHaveText('The lowest note comes first.');
  await range.getByLabel('Lowest note').fill('a3');
  await range.getByLabel('Highest note').fill('E6');
  await range.getByRole('button', { name: 'Compare for the voice' }).click();
  await expect(range).toContainText('The voice is judged by the range you gave, A3 to E6.');
  await expect(page.getByRole('list', { name: 'Best three keys' })).toContainText('beyond the voice');
});

test('who plays what is proposed, and can be changed after the piece is kept', async ({ page }) => {
  await open(page, '/pieces');
  await page.locator('input[type=file]').setInputFiles({
    name: 'three.abc',
    mimeType: 'text/vnd.abc',
    buffer: Buffer.from(
      'X:1\nT:Three Parts\nL:1/4\nK:C\nV:1 name="Singer"\nV:2 name="Upper"\nV:3 clef=bass name="Lower"\n' +
        '[V:1] c d e f|g4|]\nw: one two three four five\n[V:2] e f g a|g4|]\n[V:3] C,4|C,4|]\n',
    ),
  });
  await expect(page.getByLabel(/Singer/)).toHaveValue('melody');
  await expect(page.getByLabel(/Upper/)).toHaveValue('right');
  await expect(page.getByLabel(/Lower/)).toHaveValue('left');
  await page.getByRole('button', { name: 'Save this piece' }).click();
  await expect(page.getByRole('heading', { level: 1, name: 'Three Parts' })).toBeVisible();
  // Each is kept before the page is left: a reload in the same moment would take the request with it.
  for (const [part, choice] of [
    [/Singer/, 'other'],
    [/Upper/, 'melody'],
  ] as const) {
    const kept = page.waitForResponse((r) => r.url().includes('?/parts') && r.ok());
    await page.getByLabel(part).selectOption(choice);
    await kept;
  }
  await page.reload();
  await expect(page.getByLabel(/Singer/)).toHaveValue('other');
  await expect(page.getByLabel(/Upper/)).toHaveValue('melody');
});

test('a piece and a version are taken away in every format', async ({ page, request }) => {
  await bring(page, 'Taken Away');
  const piece = new URL(page.url()).pathname;
  await page.getByRole('button', { name: 'Download' }).click();
  await expect(page.getByRole('menuitem')).toHaveCount(6);
  const download = page.waitForEvent('download');
  await page.getByRole('menuitem', { name: /^ABC/ }).click();
  expect((await download).suggestedFilename()).toBe('Taken Away.abc');
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Make a version' }).click();
  await benchReady(page);
  for (const at of [piece, new URL(page.url()).pathname])
    for (const ending of ['musicxml', 'mxl', 'mid', 'abc', 'pro', 'txt']) {
      const answer = await request.get(`${at}/as/${ending}`);
      expect(answer.status()).toBe(200);
      const { score } = readScoreFile(`x.${ending}`, new Uint8Array(await answer.body()));
      expect(score.title).toContain('Taken Away');
    }
  expect((await request.get(`${piece}/as/pdf`)).status()).toBe(404);
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
    says: 'up to 24 MB',
  },
];
for (const { what, file, says } of bad)
  test(`${what}: a clear message, and nothing changes`, async ({ page }) => {
    expect(await countOf(page, BAD)).toBe(0);
    await page.locator('input[type=file]').setInputFiles(onDisk(file));
    await expect(page.getByRole('alert')).toContainText(says);
    await expect(page.getByRole('alert')).toContainText('Nothing was saved.');
    expect(await countOf(page, BAD)).toBe(0);
  });

test('a large file sent past the page is refused by the server, without a trace', async ({
  page,
  request,
  baseURL,
}) => {
  expect(await countOf(page, BAD)).toBe(0);
  const send = (bytes: number) =>
    request.post('/pieces?/keep', {
      headers: { origin: baseURL!, 'x-sveltekit-action': 'true' },
      multipart: {
        file: { name: 'huge.xml', mimeType: 'application/xml', buffer: Buffer.alloc(bytes, '<a>') },
      },
    });
  const answer = await send(24.5 * 1024 * 1024);
  expect((await answer.json()).status).toBe(413);
  expect(await countOf(page, BAD)).toBe(0);
});

test('a form from another site is refused', async ({ request }) => {
  const answer = await request.post('/learners/new', {
    headers: { origin: 'https://elsewhere.example' },
    form: { name: 'Nobody' },
  });
  expect(answer.status()).toBe(403);
});

test('a large score says how far it is, and can be stopped', async ({ page }) => {
  const line = Array.from({ length: 2000 }, () => 'C5:0.25 D5:0.25 E5:0.25 F5:0.25 '.repeat(4)).join(' | ');
  const score = scoreFrom({
    title: 'Very long',
    key: 'C',
    time: { beats: 4, beatType: 4 },
    right: line,
    left: line,
  });
  await open(page, '/pieces');
  await page.locator('input[type=file]').setInputFiles({
    name: 'very-long.musicxml',
    mimeType: 'application/xml',
    buffer: Buffer.from(writeMusicXml(score)),
  });
  await expect(page.getByRole('progressbar', { name: 'Reading the file' })).toBeVisible();
  await page.getByRole('button', { name: 'Stop' }).click();
  await expect(page.getByRole('alert')).toContainText('Stopped.');
  await expect(page.getByText('very-long.musicxml')).toHaveCount(0);
});

test('a piece too long for the bench says so at once, and a section of it becomes a piece', async ({
  page,
}) => {
  const many = `X:1\nT:Far Too Long\nM:2/4\nL:1/8\nK:G\n${'GABc dBAG|'.repeat(3700)}]\n`;
  await open(page, '/pieces');
  await page
    .locator('input[type=file]')
    .setInputFiles({ name: 'far.abc', mimeType: 'text/plain', buffer: Buffer.from(many) });
  await page.getByRole('button', { name: 'Save this piece' }).click();
  await page.waitForURL(/\/pieces\/[^/]+$/);
  await expect(page.getByText('This piece is too long for the bench.')).toBeVisible();
  await page.getByRole('button', { name: 'Make a version' }).click();
  await page.waitForURL(/\/cut$/);
  await expect(page.getByText(/29,600 notes in 3,700 measures/)).toBeVisible();
  await expectAccessible(page);
  await page
    .getByRole('button', { name: /^Make a piece of measures 1/ })
    .first()
    .click();
  await page.waitForURL(/\/pieces\/[^/]+$/);
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Far Too Long, measures 1');
  await expect(page.getByText('This piece is too long for the bench.')).toHaveCount(0);
});

test('a band: who has the melody is named phrase by phrase, heard, and changed', async ({ page }) => {
  await page.goto('/pieces');
  await page.locator('html[data-ready]').waitFor();
  await page.locator('input[type=file]').first().setInputFiles('tests/music/cabinet/lantern_parade.mid');
  const first = page.getByRole('combobox', { name: 'Melody in measures 1 to 8' });
  await expect(first.locator('option:checked')).toHaveText('Flute');
  await expect(
    page.getByRole('combobox', { name: 'Melody in measures 9 to 16' }).locator('option:checked'),
  ).toHaveText('Sax');
  await page.getByRole('button', { name: 'Listen to measures 1 to 8' }).click();
  await expect(page.getByRole('button', { name: 'Stop measures 1 to 8' })).toBeVisible();
  await page.getByRole('button', { name: 'Stop measures 1 to 8' }).click();
  // What is chosen is saved, also where the new look has not come back yet.
  await page.route('**/pieces?/look', async (route) => {
    await new Promise((later) => setTimeout(later, 3_000));
    await route.continue().catch(() => undefined);
  });
  await first.selectOption('Runs');
  await expect(first.locator('option:checked')).toHaveText('Runs');
  await page.getByRole('button', { name: 'Save this piece' }).click();
  await expect(page.getByRole('heading', { level: 1, name: 'Lantern parade' })).toBeVisible();
  // It stays as it was chosen, and can be taken back on the piece's page.
  await expect(first.locator('option:checked')).toHaveText('Runs');
  await page.getByRole('button', { name: 'Reset to the suggestion' }).click();
  await expect(first.locator('option:checked')).toHaveText('Flute');
});
