/** Takes the pictures of docs/screenshots/ from the demo studio. Run with `npm run screenshots` after a build. */
import { devices, expect, test, type Page } from '@playwright/test';
import { fromMenu, open } from '../tests/support';

const shot = (page: Page, name: string) => page.screenshot({ path: `docs/screenshots/${name}.png` });
const drawn = async (page: Page): Promise<void> => {
  await expect(page.locator('.sheet svg').nth(1)).toBeVisible({ timeout: 30_000 });
  await expect(page.locator('[aria-busy="true"]')).toHaveCount(0, { timeout: 30_000 });
};

test('screenshots', async ({ page }) => {
  test.setTimeout(300_000);
  for (const [path, name] of [
    ['/', 'today'],
    ['/learners', 'learners'],
    ['/pieces', 'pieces'],
  ] as const) {
    await open(page, path);
    await shot(page, name);
  }
  // Whoever has a practice room finds its code on the handout.
  await open(page, '/learners');
  await page.getByRole('link', { name: 'Maelle', exact: true }).click();
  await page.getByRole('link', { name: 'Practice room' }).click();
  await page.getByRole('button', { name: /^(Create|Replace) the link$/ }).click();
  await expect(page.locator('a[href^="/room/"]')).toBeVisible();
  await open(page, '/pieces');
  await page.locator('input[type=file]').setInputFiles('demo-studio/mill-pond-waltz.musicxml');
  await expect(page.locator('.sheet svg').first()).toBeVisible({ timeout: 30_000 });
  await page.getByRole('button', { name: 'Cancel' }).click();
  await page.getByRole('link', { name: 'Kite Weather' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Kite Weather');
  await expect(page.getByText('right hand', { exact: true })).toBeVisible(); // the chart has come
  await page.getByText('Chord numbers').scrollIntoViewIfNeeded();
  await page.mouse.wheel(0, 260);
  await page.waitForTimeout(500);
  await shot(page, 'piece');
  await page
    .getByRole('link', { name: /^Level 2 in/ })
    .first()
    .click();
  // The piece's page has pictures and a path too.
  await page.waitForURL(/\/versions\//);
  await drawn(page);
  await page.getByRole('button', { name: /^measure 3, difficulty/ }).click();
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('3');
  await page.keyboard.press('ArrowRight');
  await expect(page.locator('.sheet .badge.decided')).toHaveCount(1);
  await expect(page.getByText('Saved', { exact: true })).toBeVisible();
  await page.waitForTimeout(800); // the reason arrives
  await shot(page, 'bench');
  await fromMenu(page, 'Handout');
  await drawn(page);
  await expect(page.getByText(/^\d+ pages?$/)).toBeVisible();
  await shot(page, 'handout');
  await page.getByLabel('Chords', { exact: true }).check();
  const chords = page.locator('.page-of-paper svg.page[aria-label$=": Chords"]').first();
  await expect(chords).toBeVisible();
  await chords.scrollIntoViewIfNeeded();
  await page.evaluate(() => document.querySelector('svg.page[aria-label$=": Chords"]')?.scrollIntoView());
  await shot(page, 'paper-chords');

  await page.goto('/pieces');
  await page.getByRole('link', { name: 'level 3', exact: true }).first().click();
  await page.waitForURL(/\/versions\//);
  await drawn(page);
  await page.getByRole('button', { name: /^measure 7, difficulty/ }).click();
  await page.getByRole('application', { name: /^Music of/ }).focus();
  await page.keyboard.press('2');
  for (const [sought, words] of [
    ['staccato', ''],
    ['note to the student', 'listen for the bass'],
    ['dynamics mf', ''],
  ] as const) {
    await page.keyboard.press('Enter');
    await page.getByPlaceholder('Type what you want to change').fill(sought);
    await page.keyboard.press('Enter');
    if (words) {
      await page.keyboard.type(words);
      await page.keyboard.press('Enter');
    }
    await expect(page.getByRole('dialog')).toHaveCount(0);
  }
  await page.keyboard.press('m');
  await expect(page.getByText('Saved', { exact: true })).toBeVisible();
  const bench = page.url();
  await page.getByRole('link', { name: 'Compare levels' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toContainText('levels side by side');
  await expect(page.locator('.sheet > svg')).toHaveCount(6, { timeout: 30_000 });
  await shot(page, 'levels');
  await page.goto(`${bench}/keys`);
  await expect(page.getByRole('list', { name: 'All keys, best first' })).toBeVisible({ timeout: 20_000 });
  await shot(page, 'keys');
  await page.goto(bench);
  await drawn(page);
  const phone = await page
    .context()
    .browser()!
    .newContext({
      viewport: { width: 390, height: 844 },
      hasTouch: true,
      isMobile: true,
      userAgent: devices['Pixel 5'].userAgent,
    });
  const small = await phone.newPage();
  await small.goto(new URL(bench, page.url()).href);
  await drawn(small);
  await small.locator('.sheet .badge').nth(2).click({ force: true });
  await small.waitForTimeout(800);
  await shot(small, 'bench-phone');
  await page.goto('/settings/studio');
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Studio');
  await shot(page, 'studio');
  await page.goto('/pieces');
  await page.getByRole('link', { name: 'Slow Ferry' }).click();
  await page.getByRole('link', { name: 'Chord chart in all 12 keys' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toContainText('all twelve keys');
  await shot(page, 'twelve-keys');
  await page.goto('/learners');
  await page.getByRole('link', { name: 'Runa', exact: true }).click();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Runa');
  await shot(page, 'learner');
  await page.getByRole('link', { name: 'Practice room' }).click();
  await page.getByRole('button', { name: /^(Create|Replace) the link$/ }).click();
  const room = await page.locator('a[href^="/room/"]').getAttribute('href');
  await small.goto(new URL(`${room}?keyboard=simulated`, page.url()).href);
  await small
    .getByRole('button', { name: /^(Right|Left) hand,|^Hands together/ })
    .first()
    .click();
  await small.getByRole('button', { name: 'I’ll play' }).click();
  await small.getByRole('button', { name: 'Let the pretend player play' }).click();
  await expect(small.getByRole('button', { name: 'Hear what you played' })).toBeVisible({ timeout: 90_000 });
  await shot(small, 'room');
  await phone.close();
  await page.goBack();
  await page.getByRole('link', { name: 'Open the steps' }).click();
  await expect(page.getByRole('button', { name: 'Done' })).toBeVisible();
  await shot(page, 'steps');
  await page.goto('/week');
  await page
    .getByRole('button', { name: /Kasimir/ })
    .first()
    .click();
  await shot(page, 'week');
  await page.goto('/');
  await page.getByRole('button', { name: 'Start the lesson of Runa' }).click();
  await expect(page.locator('.sheet svg').first()).toBeVisible({ timeout: 20_000 });
  await expect(page.getByRole('button', { name: 'Play the current step' })).toBeEnabled({ timeout: 20_000 });
  await page.keyboard.press('Enter');
  await page.keyboard.press('3');
  await shot(page, 'lesson');
  await page.goto('/pieces');
  await page.getByRole('link', { name: 'Fox at the Gate' }).first().click();
  await page.getByRole('button', { name: 'Make a version' }).click();
  await page.waitForURL(/\/versions\//);
  await drawn(page);
  await page.getByRole('application', { name: /^Music of/ }).focus();
  for (let i = 0; i < 14; i++) {
    await page.keyboard.press('ArrowRight');
    await page.keyboard.press(i % 3 === 0 ? '3' : '2');
  }
  await expect(page.locator('.sheet .badge.decided').first()).toBeVisible();
  await expect(page.getByText('Saved', { exact: true })).toBeVisible();
  await expect(async () => {
    await page.goto('/settings/hand');
    await expect(page.getByText(/^Learned from/)).toBeVisible({ timeout: 500 });
  }).toPass({ timeout: 60_000 });
  await shot(page, 'house-hand');
  await open(page, '/pieces/new');
  await page.keyboard.type('4cdecgabg2c4de1d4cdecgabg2c4dc1c');
  for (let i = 0; i < 4; i++) await page.keyboard.press('Control+ArrowLeft');
  await page.keyboard.press('Home');
  await page.keyboard.press('s');
  for (const row of ['C', 'G', 'C G', 'G7', 'C', 'G', 'Am G', 'C']) {
    await page.keyboard.type(row);
    await page.keyboard.press('Enter');
  }
  await page.keyboard.press('Escape');
  await page.keyboard.press('End');
  await page.keyboard.press('w');
  await page.keyboard.type(
    'Lan-terns on the har-bour wall are all the light there is, ev-ery boat comes slow-ly home to rest in-side it',
  );
  await page.keyboard.press('Enter');
  await page.waitForTimeout(1500);
  await shot(page, 'compose');
});
