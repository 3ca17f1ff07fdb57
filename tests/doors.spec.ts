/** What opens over every page: the help, the search and the metronome; and the keyboard after the mouse. */
import { expect, test } from '@playwright/test';
import { benchReady, bring, expectAccessible, open, setLevel } from './support';

test('everything is found by one search', async ({ page }) => {
  await open(page, '/week');
  await page.keyboard.press('Control+k');
  const dialog = page.getByRole('dialog', { name: 'Search' });
  await expect(dialog.getByText('Add a piece')).toBeVisible();
  await expectAccessible(page);
  await page.keyboard.type('berit');
  await expect(dialog.getByRole('option').first()).toHaveText('Berit');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Berit');
  await page.keyboard.press('Control+k');
  await expect(dialog.locator('input')).toBeFocused();
  await page.keyboard.type('metronome');
  await expect(dialog.getByRole('option').first()).toHaveText('Metronome');
  await page.keyboard.press('Enter');
  const metronome = page.getByRole('region', { name: 'Metronome' });
  await metronome.getByLabel('Tempo').fill('300');
  await metronome.getByRole('button', { name: 'Start' }).click();
  await expect(metronome.getByLabel('Tempo')).toHaveValue('240');
  await metronome.getByRole('button', { name: 'Close the metronome' }).click();
  await expect(metronome).toHaveCount(0);
});

test('the help says the shortcuts of the screen and what the stones mean', async ({ page }) => {
  await open(page, '/');
  await page.keyboard.press('?');
  const help = page.getByRole('dialog', { name: 'Help' });
  await expect(help).toContainText('right half filled', { ignoreCase: true });
  await expect(help).toContainText('Can I undo?');
  await expectAccessible(page);
  await help.getByRole('searchbox').fill('backup');
  await expect(help).toContainText('Where is my data?');
  await expect(help).not.toContainText('Can I undo?');
  await help.getByRole('link', { name: 'All help' }).click();
  await expect(page.getByRole('heading', { name: 'Shortcuts: Lesson' })).toBeVisible();
  await expectAccessible(page);
});

test('after the mouse the next key goes to the music', async ({ page }) => {
  await bring(page, 'Mouse Song');
  await page.getByRole('button', { name: 'Make a version' }).click();
  await benchReady(page);
  const music = page.getByRole('application', { name: /^Music of/ });
  await setLevel(page, '3');
  await expect(music).toBeFocused();
  await benchReady(page);
  await page.keyboard.press(' ');
  await expect(page.getByRole('button', { name: 'Stop', exact: true })).toBeVisible();
  await page.keyboard.press(' ');
  await page.getByRole('checkbox', { name: 'Metronome' }).click();
  await expect(music).toBeFocused();
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('4');
  await expect(page.locator('.sheet .badge.decided')).toHaveText('4');
  // From the music to More in at most three presses.
  await music.focus();
  for (let presses = 0; presses < 3; presses++) await page.keyboard.press('Shift+Tab');
  await expect(page.getByRole('button', { name: 'More', exact: true })).toBeFocused();
  // The bench opens where it was left.
  await music.focus();
  await page.keyboard.press('PageDown');
  await page.keyboard.press('PageDown');
  const here = page.getByRole('region', { name: /^measure \d+$/ });
  const left = (await here.getAttribute('aria-label'))!;
  expect(left).not.toBe('measure 1');
  await page.reload();
  await benchReady(page);
  await expect(here).toHaveAttribute('aria-label', left);
});

test('music outside of the bench is walked and read out', async ({ page }) => {
  await bring(page, 'Read Song');
  await page.getByRole('button', { name: 'Make a version' }).click();
  await benchReady(page);
  await open(page, `${page.url()}/levels`);
  const line = page.getByRole('application', { name: /^Level 1/ });
  await line.focus();
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('ArrowRight');
  await expect(line.locator('[aria-live]')).toContainText(/Measure 1, beat \d.*finger \d/);
  await expect(line.locator('.note.selected')).toHaveCount(1);
});

test('what is deleted can be restored at once', async ({ page }) => {
  await bring(page, 'Gone Song');
  await page.getByRole('button', { name: 'Rename' }).click();
  await page.getByLabel('Title').fill('Going Song');
  await page.getByRole('button', { name: 'Save', exact: true }).first().click();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Going Song');
  await page.getByRole('button', { name: 'Delete: Going Song' }).click();
  await expect(page.getByText('Moved to the trash: Going Song.')).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByText('Restored.')).toBeVisible();
  await expect(page.getByRole('link', { name: 'Going Song' })).toBeVisible();
});

test('several files become several pieces, and what is there already is said', async ({ page }) => {
  const file = (title: string) => ({
    name: `${title}.abc`,
    mimeType: 'text/plain',
    buffer: Buffer.from(`X:1\nT:${title}\nM:4/4\nL:1/4\nK:C\nCDEF|GFED|C4|]\n`),
  });
  await open(page, '/pieces');
  const broken = { name: 'broken.musicxml', mimeType: 'text/xml', buffer: Buffer.from('<score') };
  await page.locator('input[type=file]').setInputFiles([file('Several One'), file('Several Two'), broken]);
  const dialog = page.getByRole('dialog');
  await expect(dialog.getByText('added', { exact: true })).toHaveCount(2);
  await expect(dialog.getByText('not added')).toHaveCount(1);
  await dialog.getByRole('button', { name: 'Done' }).click();
  await page.locator('input[type=file]').setInputFiles([file('Several One'), file('Several Three')]);
  await expect(dialog.getByText('you have this already')).toHaveCount(1);
  await dialog.getByRole('button', { name: 'Done' }).click();
  await page.locator('input[type=file]').setInputFiles(file('Several Two'));
  await expect(dialog.getByText(/You have this already/)).toBeVisible();
});
