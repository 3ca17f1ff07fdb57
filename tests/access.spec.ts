/** Every main view holds what axe can check, and works without a mouse. */
import { expect, test } from '@playwright/test';
import { benchReady, expectAccessible, fromMenu, open } from './support';

for (const path of ['/', '/learners', '/learners/new', '/pieces'])
  test(`${path} is accessible`, async ({ page }) => {
    await open(page, path);
    await expectAccessible(page);
  });

test('a piece, its bench, its handout and a student are accessible', async ({ page }) => {
  await page.goto('/pieces');
  await page.getByRole('link', { name: 'Kite Weather' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Kite Weather');
  await expectAccessible(page);
  await page
    .getByRole('link', { name: /^Level 2 in/ })
    .first()
    .click();
  await benchReady(page);
  await expectAccessible(page);
  await fromMenu(page, 'Handout');
  await expect(page.locator('.sheet svg').first()).toBeVisible();
  await expectAccessible(page);
  await page.goto('/learners');
  await page.getByRole('link', { name: 'Berit', exact: true }).click();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Berit');
  await expectAccessible(page);
  await page.getByRole('link', { name: 'Open the steps' }).click();
  await expect(page.getByRole('button', { name: 'Done' })).toBeVisible();
  await expectAccessible(page);
});

test('the first thing the Tab key reaches leads to the content', async ({ page }) => {
  await page.goto('/');
  await page.keyboard.press('Tab');
  await expect(page.getByRole('link', { name: 'To the content' })).toBeFocused();
});
