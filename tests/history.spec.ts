/** What was done to a version outlives the page: undo after a reload, earlier states, and a second window. */
import { expect, test, type Page } from '@playwright/test';
import { benchReady, bring, expectAccessible, fromMenu, setLevel } from './support';

async function openBench(page: Page, title: string): Promise<void> {
  await bring(page, title);
  await page.getByRole('button', { name: 'Make a version' }).click();
  await benchReady(page);
}
const decided = (page: Page) => page.locator('.sheet .badge.decided');
const undo = (page: Page) => page.getByRole('button', { name: 'Undo', exact: true });

test('undo and redo survive a reload and are the same in a second window', async ({ page, context }) => {
  await openBench(page, 'Remembered Song');
  await page.keyboard.press('3');
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('4');
  await expect(decided(page)).toHaveCount(2);
  await benchReady(page);
  await page.reload();
  await benchReady(page);
  await undo(page).click();
  await expect(decided(page)).toHaveCount(1);
  const other = await context.newPage();
  await other.goto(page.url());
  await benchReady(other);
  await other.getByRole('button', { name: 'Redo' }).click();
  await expect(decided(other)).toHaveCount(2);
  await other.close();
  // Coming back to the first window shows what was done in the other.
  await page.evaluate(() => window.dispatchEvent(new Event('focus')));
  await expect(decided(page)).toHaveCount(2);
});

test('an octave and a note left out, from their keys and back again', async ({ page }) => {
  await openBench(page, 'Lifted Song');
  const said = page.locator('footer [aria-live]');
  await page.getByRole('button', { name: /^measure 1, difficulty/ }).click();
  await expect(said).toContainText('right hand, F 4');
  await page.getByRole('application', { name: /^Music of/ }).focus();
  await page.keyboard.press('Shift+O');
  await expect(said).toContainText('right hand, F 3');
  const panel = page.getByRole('region', { name: 'Selected measure' });
  await expect(panel).toContainText('Your choice: an octave lower.');
  await panel.getByRole('button', { name: 'leave this note out' }).click();
  await expect(page.locator('.sheet .note[data-id="m1n0"]')).toHaveCount(0);
  await benchReady(page);
  await page.getByRole('link', { name: '2 choices' }).click();
  const dropped = page.getByRole('listitem').filter({ hasText: 'Left out' });
  await expect(dropped).toContainText(/by the teacher/);
  await expectAccessible(page);
  await dropped.getByRole('button', { name: /^Reset: left out/ }).click();
  await expect(dropped).toHaveCount(0);
  await page.getByRole('link', { name: 'History' }).click();
  await expect(page.getByText('Reset left out')).toBeVisible();
  await page.getByRole('link', { name: 'Back to the bench' }).click();
  await expect(page.locator('.sheet .note[data-id="m1n0"]')).toHaveCount(1);
});

test('an earlier state is looked at, named, made a version of its own, and gone back to', async ({
  page,
}) => {
  await openBench(page, 'Revised Song');
  await page.keyboard.press('3');
  await setLevel(page, '1');
  await expect(page.getByText(/^Level 1 \(First steps\)/)).toBeVisible();
  await benchReady(page);
  await fromMenu(page, 'History');
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Revised Song: history');
  await expect(page.getByText('Level 1', { exact: false }).first()).toBeVisible();
  await expectAccessible(page);
  await page.getByRole('textbox', { name: 'Name of 1' }).fill('for the concert');
  await page.getByRole('button', { name: 'Save the name of 1' }).click();
  await expect(page.getByText('for the concert:')).toBeVisible();
  await page.getByRole('link', { name: 'Preview' }).last().click();
  await expect(page.getByText(/as it was at change 1/)).toBeVisible();
  await page.goBack();
  await page.getByRole('button', { name: 'New version from 1' }).click();
  await benchReady(page);
  await expect(page.getByText(/^Level 2 \(Two hands\)/)).toBeVisible();
  await expect(undo(page)).toBeDisabled();
  await page.goBack();
  await page.getByRole('button', { name: 'Restore 1' }).click();
  await benchReady(page);
  await expect(page.getByText(/^Level 2 \(Two hands\)/)).toBeVisible();
  await expect(undo(page)).toBeEnabled();
});

test('after a section is moved, the bench and the handout agree at once', async ({ page, request }) => {
  await openBench(page, 'Moved Song');
  const version = page.url();
  await page.getByRole('link', { name: 'Moved Song' }).click();
  await page.waitForURL(/\/pieces\/[^/]+$/);
  const piece = page.url();
  const answer = await request.put(`${piece}/sections`, {
    data: {
      sections: [
        { measure: 0, name: 'Door' },
        { measure: 3, name: 'Window' },
      ],
      was: null,
    },
  });
  expect(answer.ok()).toBe(true);
  await page.goto(version);
  await expect(page.getByRole('heading', { name: 'Window' })).toBeVisible();
  await page.goto(`${version}/handout`);
  await expect(page.locator('.page-of-paper').getByText('Window', { exact: true }).first()).toBeVisible();
  await page.getByLabel('Practice', { exact: true }).check();
  await expect(page.locator('.page-of-paper').getByText(/^Measures 3 to \d$/)).toBeVisible();
});
