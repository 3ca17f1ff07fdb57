/** Hands, fingers, counts and pedal on the bench: each proposed, overruled and given back. */
import { expect, test, type Page } from '@playwright/test';
import { bring, benchReady } from './support';

async function openBench(page: Page, title: string, level = 3): Promise<void> {
  await bring(page, title);
  await page.getByLabel(/^Level/).selectOption(String(level));
  await page.getByRole('button', { name: 'Make a version' }).click();
  await benchReady(page);
  await page.getByRole('button', { name: /^measure 1, difficulty/ }).click();
}

const panel = (page: Page) => page.getByRole('region', { name: 'Selected measure' });
const counts = (page: Page) => page.locator('.sheet').first().locator('text.count');

async function choose(page: Page, now: RegExp, next: string): Promise<void> {
  await page.getByLabel(now).click();
  await page.getByRole('listbox').getByRole('option', { name: next }).click();
}

test('another counting school, words of one’s own, and a section that is different counting', async ({
  page,
}) => {
  await openBench(page, 'Counted Song');
  const words = panel(page).getByLabel('Words to count this measure');
  await expect(words).toHaveValue('1 (2) & 3 4');
  await page.getByRole('button', { name: /^More settings/ }).click();
  await choose(page, /^Counting: suggested/, 'ta, ka-di-mi');
  await page.keyboard.press('Escape');
  await expect(words).toHaveValue('ta (ta) di ta ta');
  await expect(counts(page).filter({ hasText: /^ta$/ }).first()).toBeVisible();
  await page.keyboard.press('c');
  await expect(words).toBeFocused();
  await words.fill('one two');
  await words.press('Enter');
  await expect(panel(page).getByRole('alert')).toHaveText('This measure needs 5 counting words.');
  await words.fill('long (and) short go on');
  await words.press('Enter');
  await expect(counts(page).filter({ hasText: 'short' })).toBeVisible();
  await benchReady(page);
  await page.reload();
  await benchReady(page);
  await page.getByRole('button', { name: /^measure 1, difficulty/ }).click();
  await expect(words).toHaveValue('long (and) short go on');
  await panel(page).getByRole('button', { name: 'Reset the counting words' }).click();
  await expect(words).toHaveValue('ta (ta) di ta ta');
  await panel(page)
    .getByLabel(/^Counting in section/)
    .selectOption('ta, ti-ti');
  await expect(words).toHaveValue('ta (ti) ti ta ta');
  await page.getByRole('button', { name: /^More settings/ }).click();
  await choose(page, /^Count for/, 'for the left hand');
  await expect(words).not.toHaveValue('ta (ti) ti ta ta');
});

test('the pedal of a measure, by list and by key, with what it is for', async ({ page }) => {
  await openBench(page, 'Pedalled Song');
  await expect(panel(page)).toContainText('down: with the bass of');
  const here = panel(page).getByLabel('Pedal in this measure');
  await here.selectOption('no pedal');
  await expect(panel(page)).not.toContainText('down: with the bass of');
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await expect(here).toHaveValue('');
  await expect(panel(page)).toContainText('down: with the bass of');
  await page.getByRole('application', { name: /^Music of/ }).focus();
  await page.keyboard.press('p');
  await expect(here).toHaveValue('none');
  await page.getByRole('button', { name: /^More settings/ }).click();
  await choose(page, /^Pedal: suggested/, 'on long notes only');
  await page.keyboard.press('Escape');
  await expect(here).toHaveValue('none');
  await here.selectOption('Suggested');
  await panel(page)
    .getByLabel(/^Pedal in section/)
    .selectOption('with each harmony');
  await expect(panel(page)).toContainText('down: with the bass of');
});

test('another fingering of the measure is taken as a whole and undone as a whole', async ({ page }) => {
  await openBench(page, 'Refingered Song', 2);
  const take = panel(page).getByRole('button', { name: /^Use/ }).first();
  const wanted = (await take.getAttribute('aria-label'))!.replace(/^Use ([\d ]+):.*$/, '$1').trim();
  await take.click();
  const row = panel(page).getByRole('list').first();
  await expect(row).toHaveText(wanted.replace(/ /g, ''), { useInnerText: false });
  await expect(page.locator('.sheet .badge.decided').first()).toBeVisible();
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await expect(page.locator('.sheet .badge.decided')).toHaveCount(0);
});

test('a note goes to the other hand and comes back', async ({ page }) => {
  await openBench(page, 'Handed Song', 2);
  const said = page.locator('footer [aria-live]');
  await expect(said).toContainText('right hand, F 4');
  await page.getByRole('application', { name: /^Music of/ }).focus();
  await page.keyboard.press('x');
  await expect(said).toContainText('left hand, F 4');
  await page.keyboard.press('0');
  await expect(said).toContainText('right hand, F 4');
});
