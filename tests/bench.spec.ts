/** The bench by keyboard and by mouse. */
import { expect, test, type Page } from '@playwright/test';
import { benchReady, bring, setLevel } from './support';

async function openBench(page: Page, title: string): Promise<void> {
  await bring(page, title);
  await page.getByRole('button', { name: 'Make a version' }).click();
  await benchReady(page);
}

test('arrows walk by onset, by measure and to the other hand; the keyboard picture follows', async ({
  page,
}) => {
  await openBench(page, 'Walking Song');
  const said = page.locator('footer [aria-live]');
  await expect(said).toContainText('Pickup, beat 4, right hand, C 4, quarter, finger');
  await page.keyboard.press('ArrowRight');
  await expect(said).toContainText('Measure 1, beat 1, right hand, F 4');
  await page.keyboard.press('Control+ArrowRight');
  await expect(said).toContainText('Measure 2');
  await page.keyboard.press('ArrowDown');
  await expect(said).toContainText('left hand');
  await page.keyboard.press('ArrowUp');
  await page.keyboard.press('ArrowUp');
  await expect(said).toContainText('right hand');
  await page.keyboard.press('PageUp');
  await expect(said).toContainText('Measure 1');
  await expect(page.getByRole('img', { name: /The hand's shape/ })).toBeVisible();
});

test('a proposal says why, a decision says what it costs', async ({ page }) => {
  await openBench(page, 'Reasoned Song');
  const panel = page.getByRole('region', { name: 'Selected measure' });
  await page.keyboard.press('ArrowRight');
  await expect(panel).toContainText(/\d on F4/);
  await expect(panel).toContainText('Suggested.');
  await page.keyboard.press('5');
  await expect(panel).toContainText('You chose 5');
  await panel.getByRole('button', { name: /Reset/ }).click();
  await expect(panel).toContainText('Suggested.');
});

test('measures can be chosen on the path and on the page', async ({ page }) => {
  await openBench(page, 'Chosen Song');
  await page.getByRole('button', { name: /^measure 6, difficulty/ }).click();
  await expect(page.getByRole('heading', { name: 'measure 6' })).toBeVisible();
  await expect(page.locator('.measure-area.current[data-measure="6"]')).toHaveCount(1);
  await page.locator('.measure-area[data-measure="2"]').click({ position: { x: 5, y: 5 }, force: true });
  await expect(page.getByRole('heading', { name: 'measure 2' })).toBeVisible();
});

test('what a level leaves out or breaks is said', async ({ page }) => {
  await openBench(page, 'Honest Song');
  await setLevel(page, '1');
  await expect(page.getByText(/\d+ of \d+ notes left out; .*\d+ rhythms? simplified/)).toBeVisible();
  await expect(page.getByText(/Kept: all \d+ notes on the beat, all \d+ bass notes/)).toBeVisible();
  // E major has four sharps, far more than level 1 reads: without a choice another key is proposed, with one it is said.
  await expect(page.getByText(/\), F major/)).toBeVisible();
  await page.getByLabel(/^Key: /).click();
  await page
    .getByRole('listbox')
    .getByRole('option', { name: /^E major original/ })
    .click();
  await expect(
    page.getByText(/1 measure has more sharps or flats in the key signature than level 1 allows/),
  ).toBeVisible();
  await page.getByRole('button', { name: /^pickup, difficulty/ }).click();
  await expect(page.getByRole('region', { name: 'Selected measure' })).toContainText(
    '4 sharps or flats in the key signature (level 1 allows 1)',
  );
});

test('a change made in another window is not overwritten', async ({ page, context }) => {
  await openBench(page, 'Shared Song');
  const other = await context.newPage();
  await other.goto(page.url());
  await benchReady(other);
  await other.keyboard.press('5');
  await expect(other.locator('.sheet .badge.decided')).toHaveCount(1);
  await benchReady(other);
  await page.keyboard.press('2');
  await expect(page.getByText(/changed in another window/)).toBeVisible();
  await other.reload();
  await benchReady(other);
  await expect(other.locator('.sheet .badge.decided')).toHaveText('5');
});

test('when the server cannot be reached the work stays on the page and can be saved later', async ({
  page,
}) => {
  await openBench(page, 'Patient Song');
  await page.route('**/versions/*/edits', (route) => route.abort());
  await page.keyboard.press('3');
  await expect(page.getByText(/Not saved/)).toBeVisible();
  await expect(page.locator('.sheet .badge.decided')).toHaveCount(1);
  await page.unroute('**/versions/*/edits');
  await page.getByRole('button', { name: 'Try again' }).click();
  await benchReady(page);
  await page.reload();
  await benchReady(page);
  await expect(page.locator('.sheet .badge.decided')).toHaveCount(1);
});

test('the keys are listed on demand', async ({ page }) => {
  await openBench(page, 'Listed Song');
  await page.keyboard.press('?');
  const keys = page.getByRole('dialog');
  await expect(keys).toContainText('finger 1');
  await keys.getByRole('searchbox', { name: 'Search help' }).fill('octave');
  await expect(keys.locator('dd')).toHaveText(['an octave higher', 'an octave lower']);
  await keys.getByRole('searchbox').fill('somersault');
  await expect(keys).toContainText('Nothing found.');
});
