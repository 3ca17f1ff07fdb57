/** What goes home on paper: chosen, seen, remembered, printed, and taken along as files, for one learner and for a class. */
import { expect, test, type Page } from '@playwright/test';
import { strFromU8, unzipSync } from 'fflate';
import { missingGlyphs } from '../src/lib/paper/missingGlyphs';
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';
import { allPages, expectAccessible, scripted } from './support';

const papers = (page: Page) => page.locator('.page-of-paper svg.page');

/** The sheets that are chosen, in their order. */
const chosenOn = (page: Page): Promise<string[]> =>
  page
    .locator('input[name^="sheet-"]:checked')
    .evaluateAll((list) => list.map((input) => input.getAttribute('name')!.replace('sheet-', '')));

/** The sheets whose pages are shown, each once, in their order. */
const sheetsOn = (page: Page): Promise<string[]> =>
  papers(page).evaluateAll((list) => [
    ...new Set(list.map((picture) => picture.getAttribute('aria-label')!.replace(/^.*: /, ''))),
  ]);

/** The handout of a learner's version of a demo piece. */
async function handoutOf(page: Page, learner: string, piece: string): Promise<void> {
  await page.goto('/learners');
  await page.getByRole('link', { name: learner, exact: true }).click();
  await page.getByRole('region', { name: piece }).getByRole('link', { name: piece }).click();
  await page.waitForURL(/\/assignments\//);
  await page.getByRole('link', { name: 'Handout' }).click();
  await page.waitForURL(/\/handout$/);
  await scripted(page);
  await expect(papers(page).first()).toBeVisible();
}

/** The text of each page; every letter of it has a glyph. */
async function textsOf(bytes: Uint8Array): Promise<string[]> {
  const { missing, letters } = missingGlyphs(bytes);
  expect(letters).toBeGreaterThan(0);
  expect(missing).toBe(0);
  const pdf = await getDocument({ data: Uint8Array.from(bytes), verbosity: 0 }).promise;
  const pages = Array.from({ length: pdf.numPages }, (_, i) => pdf.getPage(i + 1));
  return Promise.all(
    pages.map(async (page) =>
      (await (await page).getTextContent()).items.map((i) => ('str' in i ? i.str : '')).join(''),
    ),
  );
}

test('sheets are chosen, ordered and remembered; the PDF holds what is shown', async ({ page, request }) => {
  await handoutOf(page, 'Berit', 'Kite Weather');
  await expectAccessible(page);
  // What was chosen last in the studio is where a version begins: from there to the score alone.
  for (const sheet of (await chosenOn(page)).filter((s) => s !== 'score')) {
    await page.locator(`input[name="sheet-${sheet}"]`).uncheck();
    await expect.poll(() => chosenOn(page)).not.toContain(sheet);
  }
  await expect.poll(() => sheetsOn(page)).toEqual(['Score']);
  const before = await allPages(page);
  await page.getByLabel('Chords', { exact: true }).check();
  await expect(
    page
      .locator('.page-of-paper')
      .getByText(/^chords, level/)
      .first(),
  ).toBeVisible();
  expect(await papers(page).count()).toBeGreaterThan(before);

  // Practice comes first when it is moved there, twice over where two are wanted.
  await page.getByLabel('Practice', { exact: true }).check();
  await expect(page.getByLabel('Copies of Practice')).toBeVisible();
  await expect.poll(() => chosenOn(page)).toEqual(['score', 'chords', 'practice']);
  await page.getByRole('button', { name: 'Practice earlier' }).click();
  await expect.poll(() => chosenOn(page)).toEqual(['score', 'practice', 'chords']);
  await expect.poll(() => sheetsOn(page)).toEqual(['Score', 'Practice', 'Chords']);
  await page.getByRole('button', { name: 'Practice earlier' }).click();
  await expect.poll(() => chosenOn(page)).toEqual(['practice', 'score', 'chords']);
  await expect(page.getByRole('button', { name: 'Practice earlier' })).toHaveCount(0);
  await page.getByLabel('Copies of Practice').fill('2');
  await page.getByLabel('Copies of Practice').blur();
  await expect(papers(page).nth(1)).toHaveAttribute('aria-label', 'Page 2: Practice');
  await expect.poll(() => sheetsOn(page)).toEqual(['Practice', 'Score', 'Chords']);

  // It is so again after a reload, and in the file.
  await page.reload();
  await expect(papers(page).nth(2)).toHaveAttribute('aria-label', 'Page 3: Score');
  const count = await allPages(page);
  const href = await page.getByRole('link', { name: 'PDF', exact: true }).getAttribute('href');
  const answer = await request.get(href!);
  expect(decodeURIComponent(answer.headers()['content-disposition']!)).toContain(
    'Kite Weather, level 3, Berit - Handout.pdf',
  );
  const texts = await textsOf(await answer.body());
  expect(texts).toHaveLength(count);
  expect(texts[0]).toContain('This week');
  expect(texts[0]).toContain('Quay Street Studio');
  expect(texts[2]).toContain('Kite Weather');
  // The browser prints the same pages.
  const printed = (await page.pdf({ preferCSSPageSize: true })).toString('latin1');
  expect(printed.match(/\/Type\s*\/Page\b/g)).toHaveLength(count);
});

test('the notes are larger where that is wished, with their names in their heads', async ({ page }) => {
  await handoutOf(page, 'Runa', 'Kite Weather');
  const pages = await allPages(page);
  await page.locator('select[name=size]').selectOption('very large');
  await expect.poll(() => allPages(page)).toBeGreaterThan(pages);
  await expect(page.locator('.in-head')).toHaveCount(0);
  await page.locator('select[name=names]').selectOption('inside the noteheads');
  await expect(page.locator('.in-head').first()).toBeVisible();
});

test('without a sheet there is a sentence, and what was chosen stays', async ({ page }) => {
  await handoutOf(page, 'Maelle', 'Kite Weather');
  const chosen = page.locator('input[name^="sheet-"]:checked');
  while ((await chosen.count()) > 0) {
    const left = await chosen.count();
    await chosen.first().uncheck();
    if (left === 1) break;
    await expect(chosen).toHaveCount(left - 1);
  }
  await expect(page.getByRole('alert')).toHaveText('Choose at least one sheet.');
  await page.reload();
  await expect(papers(page).first()).toBeVisible();
});

test('a class is printed in one, or as a file for each', async ({ page, request }) => {
  await page.goto('/learners');
  await page.getByRole('link', { name: 'Saturday four' }).click();
  await page.getByRole('link', { name: 'Print for everyone' }).click();
  await expect(papers(page).first()).toBeVisible();
  await scripted(page);
  await expectAccessible(page);
  // A duet is shared out: in the file of each stands their part of it.
  await page.getByLabel('Duet', { exact: true }).check();
  await expect(
    page
      .locator('.page-of-paper')
      .getByText(/^upper part of two/)
      .first(),
  ).toBeVisible();
  const one = await request.get(
    (await page.getByRole('link', { name: 'One PDF', exact: true }).getAttribute('href'))!,
  );
  const pages = await textsOf(await one.body());
  const zip = await request.get(
    (await page.getByRole('link', { name: 'One PDF a student' }).getAttribute('href'))!,
  );
  const files = unzipSync(new Uint8Array(await zip.body()));
  expect(Object.keys(files).length).toBeGreaterThan(1);
  let together = 0;
  for (const [name, bytes] of Object.entries(files)) {
    expect(strFromU8(bytes.subarray(0, 5))).toBe('%PDF-');
    const texts = await textsOf(bytes);
    together += texts.length;
    // Each has the name of its own learner on it.
    const learner = /, ([^,]+) - /.exec(name)![1]!;
    expect(texts[0]).toContain(learner);
    expect(texts.join(' ').includes('upper part of two')).toBe(
      !texts.join(' ').includes('lower part of two'),
    );
    expect(pages.join(' ')).toContain(learner);
  }
  expect(together).toBe(pages.length);
});

test('the studio and a line of its own stand at the foot of every page', async ({ page }) => {
  await page.goto('/settings/studio');
  await scripted(page);
  await page.getByLabel('Footer line').fill('Third floor, ring twice');
  await page.getByRole('region', { name: 'On paper' }).getByRole('button', { name: 'Save' }).click();
  await handoutOf(page, 'Sunniva', 'Kite Weather');
  await expect(
    page
      .locator('.page-of-paper')
      .first()
      .getByText(/Quay Street Studio · Third floor, ring twice/),
  ).toBeVisible();
});
