/** The page of a piece: what it says, that it leads into the music, and that the form can be made one's own. */
import { expect, test, type Page } from '@playwright/test';
import { writeMusicXml } from '../src/lib/core/io/musicxml/write';
import { scoreFrom } from '../src/lib/core/test/shorthand';
import { bring, expectAccessible, open, scripted } from './support';

const music = (page: Page) => page.getByRole('region', { name: /^The music of/ });

/** Keeps a piece from a file made of the shorthand. */
async function keep(page: Page, title: string, made: Parameters<typeof scoreFrom>[0]): Promise<void> {
  await open(page, '/pieces');
  await page.locator('input[type=file]').setInputFiles({
    name: `${title}.musicxml`,
    mimeType: 'application/xml',
    buffer: Buffer.from(writeMusicXml(scoreFrom({ ...made, title }))),
  });
  await page.getByRole('button', { name: 'Save this piece' }).click();
  await expect(page.getByRole('heading', { level: 1, name: title })).toBeVisible();
  await scripted(page);
}

const A = [
  'C5:1 E5:1 G5:1 E5:1',
  'F5:1 A5:1 G5:2',
  'E5:1 D5:1 C5:1 D5:1',
  'E5:2 C5:2',
  'D5:1 E5:1 F5:1 D5:1',
  'G5:1 F5:1 E5:2',
  'D5:1 C5:1 B4:1 D5:1',
  'C5:4',
];
const B = ['A5:2 F5:2', 'G5:2 E5:2', 'Ab5:2 F5:2', 'G5:4', 'A5:3 G5:1', 'E5:3 D5:1', 'D5:2 E5:2', 'D5:4'];
const [C, F, G, FM] = ['[C3 E3 G3]:4', '[F3 A3 C4]:4', '[G2 B2 D3]:4', '[F3 Ab3 C4]:4'];
const LEFT_A = [C, '[F3 A3 C4]:2 [C3 E3 G3]:2', G, C, G, C, G, C];
const LEFT_B = [F, C, FM, C, F, C, G, G];
const song = {
  key: 'C',
  time: { beats: 4, beatType: 4 },
  tempo: 96,
  right: [...A, ...A.slice(0, 7), 'C5:2 E5:2', ...B, ...A].join(' | '),
  left: [...LEFT_A, ...LEFT_A, ...LEFT_B, ...LEFT_A].join(' | '),
};

test('what is said of a piece leads into its music', async ({ page }) => {
  await keep(page, 'Said Song', song);
  await expect(page.getByRole('heading', { name: '17 measures to learn, 32 in all' })).toBeVisible();
  await expect(page.getByRole('paragraph').filter({ hasText: 'A′ (measures 9 to 16)' })).toHaveText(
    'A′ (measures 9 to 16) is like A: the right hand has more notes in measure 16 (second half); the left hand is the same. Note by note: measure 16: also E5',
  );
  await expect(page.getByText('C D E F G A B')).toBeVisible();
  // The borrowed chord has its picture, its degree, and what stays from the chord before.
  const borrowed = page.getByRole('listitem').filter({ has: page.getByRole('img', { name: 'Fm: F A♭ C' }) });
  await expect(borrowed).toContainText('iv outside the key');
  await expect(page.getByRole('link', { name: /Fm iv, outside the key C stays, F A♭ new/ })).toBeVisible();
  await page.getByLabel('Chord numbers').selectOption('1 6 4 5');
  await expect(borrowed).toContainText('4 minor outside the key');
  await borrowed.getByRole('link').click();
  await expect(music(page).getByRole('heading')).toHaveText('Measures 17 to 20');
  await expect(music(page).locator('.sheet svg').first()).toBeVisible();
  await expect(page.locator('.measure-area.current')).toHaveCount(1);
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Previous phrase' }).click();
  await expect(music(page).getByRole('heading')).toHaveText('Measures 13 to 16');
  await page.keyboard.press('Escape');
  await expect(music(page)).toHaveCount(0);
  await page.getByRole('button', { name: /^measure 20, difficulty/ }).click();
  await expect(music(page).getByRole('heading')).toHaveText('Measures 17 to 20');
});

test('the home key is said by the teacher, counts everywhere, and is left to the analysis again', async ({
  page,
}) => {
  await keep(page, 'Homely Song', {
    key: 'C',
    time: { beats: 4, beatType: 4 },
    right: 'A4:2 C5:2 | A4:2 F4:2 | G4:2 E4:2 | D4:2 B3:2 | A4:2 C5:2 | A4:2 F4:2 | G4:2 E4:2 | D4:2 B3:2',
    left: 'A2:4 | F2:4 | C3:4 | G2:4 | A2:4 | F2:4 | C3:4 | G2:4',
    chords: 'Am | F | C | G | Am | F | C | G',
  });
  const main = page.getByRole('main');
  const home = page.getByLabel('Home key');
  await expect(home.locator('option:checked')).toHaveText('A minor, suggested');
  await expect(main).toContainText('It begins 1 6 3 7.');
  await page.getByRole('button', { name: 'Use C major' }).click();
  await expect(main).toContainText('It begins 6 4 1 5.');
  await expect(home.locator('option:checked')).toHaveText('C major');
  await expect(main).toContainText('C major, 4/4');
  await expect(page.getByRole('link', { name: /^Am vi/ }).first()).toBeVisible();
  await expectAccessible(page);
  await home.selectOption('D dorian');
  await expect(main).toContainText('D dorian, 4/4');
  await page.getByRole('button', { name: 'Undo: the whole piece' }).click();
  await expect(home.locator('option:checked')).toHaveText('A minor, suggested');
});

test('the form is made one’s own, and given back', async ({ page }) => {
  await keep(page, 'Formed Song', song);
  await page.getByText('Change the sections').click();
  const name = page.getByLabel('Name of section B');
  await name.fill('Refrain');
  await name.press('Enter');
  await expect(page.getByText('Section B has another name.')).toBeVisible();
  await page.getByRole('button', { name: 'Split section Refrain' }).click();
  await expect(page.getByText('Section Refrain is two now.')).toBeVisible();
  await expect(page.getByLabel(/^Section Refrain starts at/)).toHaveValue('16');
  await page.getByLabel(/^Section Refrain starts at/).selectOption({ value: '15' });
  await expect(page.getByText('Section Refrain begins elsewhere.')).toBeVisible();
  await page.reload();
  await scripted(page);
  await page.getByText('Your sections').click();
  await expect(page.getByLabel(/^Section Refrain starts at/)).toHaveValue('15');
  await page.getByRole('button', { name: /^Join section Refrain/ }).click();
  await expect(page.getByLabel('Name of section Refrain')).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo' }).last().click();
  await expect(page.getByLabel('Name of section Refrain')).toHaveCount(1);
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Reset to the suggestion' }).click();
  await expect(page.getByText('Change the sections')).toBeVisible();
  await expect(page.getByRole('link', { name: 'B', exact: true })).toBeVisible();
});

test('a long piece is analysed beside the page, which says how far it is', async ({ page }) => {
  const times = (n: number, list: readonly string[]): string =>
    Array.from({ length: n }, (_, i) => list[i % list.length]).join(' | ');
  await keep(page, 'Long Song', {
    ...song,
    right: times(400, [...A, ...B]),
    left: times(400, [...LEFT_A, ...LEFT_B]),
  });
  await page.route('**/score', async (route) => {
    await new Promise((resolve) => setTimeout(resolve, 500));
    await route.continue();
  });
  await page.reload();
  await expect(page.getByRole('progressbar', { name: 'Analysis' })).toBeVisible();
  await expect(page.getByRole('heading', { name: '16 measures to learn, 400 in all' })).toBeVisible();
});

test('a symbol that the notes contradict is said', async ({ page }) => {
  await keep(page, 'Doubtful Song', { ...song, chords: ['C', 'F C', 'G', 'Am', 'G'].join(' | ') });
  await expect(page.getByRole('link', { name: /Measure 4: the symbol says Am, but .* sound/ })).toBeVisible();
});

test('a form that is none is refused with a sentence', async ({ page }) => {
  await bring(page, 'Refused Form');
  const answer = await page.request.put(`${page.url()}/sections`, {
    data: { sections: [{ measure: 3 }], was: null },
  });
  expect(answer.status()).toBe(400);
  expect((await answer.json()).message).toBe('The first section begins with the first measure.');
});
