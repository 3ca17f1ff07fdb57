/** A pattern of one's own: typed, played and taken from a measure; chosen, refused by a level with the reason, removed in the settings. */
import { expect, test, type Page } from '@playwright/test';
import { benchReady, bring, expectAccessible } from './support';

const panel = (page: Page) => page.getByRole('region', { name: 'Selected measure' });
const dialog = (page: Page) => page.getByRole('dialog', { name: 'Your own pattern' });
const measure = (page: Page, number: number) =>
  page.getByRole('button', { name: new RegExp(`^measure ${number}, difficulty`) });
const leftHand = (page: Page) => panel(page).getByLabel('Left hand in this measure');

async function openBench(page: Page, title: string): Promise<void> {
  await bring(page, title);
  await page.getByRole('button', { name: 'Make a version' }).click();
  await benchReady(page);
  await page.goto(`${page.url()}?keyboard=simulated`);
  await benchReady(page);
}

test('a typed pattern is seen before it is kept, then offered everywhere; the settings take it away', async ({
  page,
}) => {
  await openBench(page, 'Patterned Song');
  await measure(page, 2).click();
  await panel(page).getByRole('button', { name: 'Your own pattern' }).click();
  await dialog(page).getByLabel('Name').fill('Two steps');
  const steps = dialog(page).getByLabel('Steps');
  await steps.fill('halves 1 x');
  await expect(dialog(page)).toContainText('“x” isn’t a note of the chord.');
  await expect(dialog(page).getByRole('button', { name: 'Save and use' })).toBeDisabled();
  await steps.fill('sixteenths 1 5 8 5');
  await expect(dialog(page)).toContainText(
    'This level leaves it out here: its notes are shorter than those of level 2.',
  );
  await steps.fill('halves 1 5');
  await expect(dialog(page).locator('svg').first()).toBeVisible();
  await expectAccessible(page);
  await dialog(page).getByRole('button', { name: 'Save and use' }).click();
  await expect(dialog(page)).toHaveCount(0);
  await expect(leftHand(page)).toHaveValue('Two steps: halves 1 5');
  // It is one of the list, and what the level refuses stands there with its reason.
  await page.getByRole('application', { name: /^Music of/ }).focus();
  await page.keyboard.press('Enter');
  await page.getByPlaceholder('Type what you want to change').fill('octaves');
  const list = page.getByRole('dialog', { name: 'Change here' });
  await expect(list.getByRole('option', { name: /Octaves.*from level 5 on/ }).first()).toBeDisabled();
  await page.getByPlaceholder('Type what you want to change').fill('two steps');
  await expect(list.getByRole('option', { name: /Two steps/ })).toBeVisible();
  await page.keyboard.press('Escape');
  await page.goto('/settings/patterns');
  await expectAccessible(page);
  await expect(page.getByRole('listitem').filter({ hasText: 'Two steps' })).toContainText('halves 1 5');
  await page.getByRole('button', { name: 'Remove Two steps' }).click();
  await expect(page.getByRole('status')).toContainText('Versions that play it keep it.');
  // Typed in the settings: what is wrong is said, and what was typed stays.
  await page.getByLabel('Name').fill('Wrong');
  await page.getByLabel('Steps').fill('eighths . 1');
  await page.getByRole('button', { name: 'Save pattern' }).click();
  await expect(page.getByRole('alert')).toContainText('“.” continues the note before it');
  await expect(page.getByLabel('Steps')).toHaveValue('eighths . 1');
});

test('a pattern is taken from a measure, and played on a keyboard', async ({ page }) => {
  await openBench(page, 'Played Pattern Song');
  await measure(page, 1).click();
  await panel(page).getByRole('button', { name: 'Your own pattern' }).click();
  await dialog(page).getByRole('button', { name: 'this measure of the version' }).click();
  await expect(dialog(page).getByLabel('Steps')).not.toHaveValue('eighths 1 5 8 5');
  await dialog(page).getByRole('button', { name: 'your keyboard' }).click();
  await expect(dialog(page).getByRole('button', { name: 'Stop listening' })).toBeVisible();
  await page.evaluate(async () => {
    for (const midi of [48, 55, 60, 55]) {
      window.dispatchEvent(new CustomEvent('keypath:key', { detail: midi }));
      await new Promise((resolve) => setTimeout(resolve, 250));
    }
  });
  await dialog(page).getByRole('button', { name: 'Stop listening' }).click();
  await expect(dialog(page).getByLabel('Steps')).toHaveValue(/ 1 5 8 5$/);
});
