/** The proposals learn from the teacher: fingers decided on the bench, what they taught in words, adjusted and put back. */
import { expect, test } from '@playwright/test';
import { benchReady, bring, expectAccessible, open } from './support';

test('fingers that are decided teach the house’s hand, which new versions begin with', async ({ page }) => {
  // Learning waits until nobody works, and the machine may be busy with other tests.
  test.setTimeout(150_000);
  await bring(page, 'Learned by Hand');
  await page.getByRole('button', { name: 'Make a version' }).click();
  await benchReady(page);
  await page.keyboard.press('ArrowRight');
  // Twelve notes under other fingers than proposed.
  for (let i = 0; i < 12; i++) {
    await page.keyboard.press(i % 2 === 0 ? '2' : '4');
    await page.keyboard.press('ArrowRight');
  }
  await expect(page.getByText('Saved', { exact: true })).toBeVisible();
  await expect(async () => {
    await open(page, '/settings/hand');
    await expect(page.getByText(/^Learned from \d+ chosen fingers/)).toBeVisible({ timeout: 500 });
  }).toPass({ timeout: 60_000 });
  await expectAccessible(page);
  const habits = page.getByRole('listitem');
  expect(await habits.count()).toBeGreaterThan(0);
  const share = habits.first().getByRole('combobox');
  await share.selectOption('Not at all');
  await expect(page.getByText('Saved. New versions use it.')).toBeVisible();
  await page.reload();
  await expect(share).toHaveValue('0');

  await open(page, '/pieces');
  await page.getByRole('link', { name: 'Learned by Hand' }).first().click();
  await page.getByRole('button', { name: 'Make a version' }).click();
  await benchReady(page);
  await page.getByRole('button', { name: /^Hands and keyboard/ }).click();
  await page.getByRole('button', { name: 'Finger without fingering preferences' }).click();
  await expect(page.getByRole('button', { name: 'Update to current fingering preferences' })).toBeVisible();

  await open(page, '/settings/hand');
  // Other fingers may be decided in this studio meanwhile, and are learned: then it is forgotten once more.
  await expect(async () => {
    await page.getByRole('button', { name: 'Reset fingering preferences' }).click({ timeout: 2000 });
    await expect(page.getByText(/^Reset/)).toBeVisible({ timeout: 3000 });
    await expect(page.getByText(/^Nothing learned yet/)).toBeVisible({ timeout: 3000 });
  }).toPass({ timeout: 40_000 });
});
