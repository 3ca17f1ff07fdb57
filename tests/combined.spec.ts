/** Two versions in one, with where each hand comes from; and a section in another style than the rest. */
import { expect, test } from '@playwright/test';
import { benchReady, bring, expectAccessible } from './support';

test('the left hand of a fuller version under the right hand of a simple one, reset and undone', async ({
  page,
}) => {
  await bring(page, 'Two in One');
  const piece = page.url();
  for (const level of ['2', '4']) {
    await page.goto(piece);
    await page.locator('select[name="level"]').selectOption(level);
    await page.getByRole('button', { name: 'Make a version' }).click();
    await benchReady(page);
  }
  await page.goto(piece);
  await page.getByText('Two versions in one').click();
  await expectAccessible(page);
  // The same version twice is none of two.
  await page.getByLabel('Right hand of').selectOption('Level 2');
  await page.getByLabel('Left hand of').selectOption('Level 2');
  await page.getByRole('button', { name: 'Make this version' }).click();
  await expect(page.getByRole('alert')).toHaveText('Choose two versions.');
  await page.getByLabel('Right hand of').selectOption('Level 2');
  await page.getByLabel('Left hand of').selectOption('Level 4');
  await page.getByRole('button', { name: 'Make this version' }).click();
  await benchReady(page);
  const from = page.getByRole('list', { name: 'From other versions' });
  await expect(from).toContainText('Left hand of Level 4');
  await expectAccessible(page);
  await from.getByRole('button', { name: 'Use this version’s left hand' }).click();
  await expect(from).toHaveCount(0);
  await page.getByRole('application', { name: /^Music of/ }).focus();
  await page.keyboard.press('Control+z');
  await expect(from).toContainText('Left hand of Level 4');
  const combined = page.url();
  await from.getByRole('link', { name: 'Level 4' }).click();
  await expect(page).not.toHaveURL(combined);
  await benchReady(page);
  await expect(from).toHaveCount(0);
});

test('one measure of a solo is a sing-along', async ({ page }) => {
  await bring(page, 'Played and Sung');
  await page.getByRole('button', { name: 'Make a version' }).click();
  await benchReady(page);
  await page.getByRole('button', { name: /^measure 2, difficulty/ }).click();
  const panel = page.getByRole('region', { name: 'Selected measure' });
  const style = panel.getByLabel('Style in this measure');
  await style.selectOption('Sing-along');
  await expect(style).toHaveValue('sing-along');
  // Only there the right hand has a chord rhythm.
  await expect(panel.getByLabel('Chord rhythm in this measure')).toBeVisible();
  await page.getByRole('button', { name: /^measure 1, difficulty/ }).click();
  await expect(panel.getByLabel('Chord rhythm in this measure')).toHaveCount(0);
});
