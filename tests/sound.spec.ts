/** Hearing a version: it plays, the cursor follows, the tempo changes as it sounds; without a device it says so. */
import { expect, test, type Page } from '@playwright/test';
import { benchReady, bring, expectAccessible } from './support';

async function openBench(page: Page, title: string): Promise<void> {
  await bring(page, title);
  await page.getByRole('button', { name: 'Make a version' }).click();
  await benchReady(page);
}

test('plays from the note in hand and stops by one key, the cursor goes along', async ({ page }) => {
  await openBench(page, 'Heard Song');
  const music = page.getByRole('region', { name: /^Music of/ });
  await music.focus();
  await page.getByRole('checkbox', { name: 'a measure before' }).uncheck();
  await music.focus();
  await page.keyboard.press(' ');
  await expect(page.getByRole('button', { name: 'Stop' })).toBeVisible();
  await expect(page.locator('.sheet .note.sounding').first()).toBeVisible();
  const first = await page.locator('.sheet .note.sounding').first().getAttribute('data-id');
  await expect
    .poll(() => page.locator('.sheet .note.sounding').first().getAttribute('data-id'), { timeout: 8000 })
    .not.toBe(first);
  // Slower while it sounds.
  await page.keyboard.press('-');
  await expect(page.getByText(/, 95 %/)).toBeVisible();
  await expectAccessible(page);
  await page.keyboard.press(' ');
  await expect(page.getByRole('button', { name: 'Play', exact: true })).toBeVisible();
  await expect(page.locator('.sheet .note.sounding')).toHaveCount(0);
});

test('a phrase goes round, a decision is taken while it sounds', async ({ page }) => {
  await openBench(page, 'Looped Song');
  await page.getByRole('checkbox', { name: 'a measure before' }).uncheck();
  await page.getByRole('slider', { name: /^Tempo/ }).fill('120');
  await page.getByRole('region', { name: /^Music of/ }).focus();
  await page.keyboard.press('l');
  await page.keyboard.press(' ');
  await expect(page.locator('.sheet .note.sounding').first()).toBeVisible();
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('4');
  await expect(page.getByText('Saved', { exact: true })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Stop' })).toBeVisible();
  // It comes back to its beginning: the first measure sounds, leaves, and sounds again.
  const sounds = (measure: string) => page.locator(`.sheet .note.sounding[data-id^="${measure}n"]`).first();
  await expect(sounds('m1')).toBeVisible({ timeout: 20_000 });
  await expect(sounds('m1')).toBeHidden({ timeout: 20_000 });
  await expect(sounds('m1')).toBeVisible({ timeout: 20_000 });
  await page.getByRole('button', { name: 'Stop' }).click();
});

test('without a sound device the cursor goes along, and it is said', async ({ page }) => {
  await page.addInitScript(() => {
    Object.assign(window, { AudioContext: undefined, webkitAudioContext: undefined });
  });
  await openBench(page, 'Silent Song');
  await page.getByRole('button', { name: 'Play', exact: true }).click();
  await expect(page.getByText(/^There is no sound here/)).toBeVisible();
  await expect(page.locator('.sheet .note.sounding').first()).toBeVisible({ timeout: 10_000 });
  await page.getByRole('button', { name: 'Stop' }).click();
});
