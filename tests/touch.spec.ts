/** By touch on small screens: fingers beside a tapped note, a tune by buttons, nothing to be scrolled sideways, and targets for a fingertip. */
import { devices, expect, test, type Browser, type Page } from '@playwright/test';
import { benchReady, bring, expectAccessible, open, scripted } from './support';

/** A telephone, whatever its make: touch, and a name that says so. */
const phone = (browser: Browser, width = 390, height = 844): Promise<Page> =>
  browser
    .newContext({
      viewport: { width, height },
      hasTouch: true,
      isMobile: true,
      userAgent: devices['Pixel 5'].userAgent,
    })
    .then((context) => context.newPage());

const wide = (page: Page): Promise<number> =>
  page.evaluate(() => document.documentElement.scrollWidth - innerWidth);

test('the bench on a telephone is music first; a finger is set by two taps', async ({
  page: desk,
  browser,
}) => {
  await bring(desk, 'Pocket Song');
  await desk.getByRole('button', { name: 'Make a version' }).click();
  await benchReady(desk);
  const page = await phone(browser);
  await page.goto(desk.url());
  await expect(page.getByRole('application', { name: /^Music of/ })).toHaveAttribute('aria-busy', 'false');
  // Two measures a line, notes about as large as on paper.
  const music = page.locator('.sheet svg').first();
  await expect(music.locator('.measure-area')).not.toHaveCount(0);
  const lines = await music
    .locator('.measure-area')
    .evaluateAll((areas) => areas.map((a) => Math.round(a.getBoundingClientRect().top)));
  const perLine = [...new Set(lines)].map((top) => lines.filter((t) => t === top).length);
  expect(Math.max(...perLine)).toBeLessThanOrEqual(3); // a pickup beside two
  expect(perLine.length).toBeGreaterThan(1);
  const head = (await music.locator('.notehead').first().boundingBox())!;
  expect(head.height).toBeGreaterThan(5);
  expect(await wide(page)).toBeLessThanOrEqual(0);
  await expect(page.getByRole('button', { name: 'Play', exact: true })).toBeInViewport();
  // Beside a note counts as the note.
  await page.touchscreen.tap(head.x + head.width / 2 + 12, head.y + head.height / 2 + 10);
  const pad = page.getByRole('group', { name: 'Finger for this note' });
  await expect(pad.first()).toBeInViewport();
  const button = (await pad.first().getByRole('button', { name: 'Finger 4' }).boundingBox())!;
  expect(Math.min(button.width, button.height)).toBeGreaterThanOrEqual(44);
  // The buttons stand beside the note, with the reason, and not over it.
  const near = await page.evaluate(() => {
    const at = document.querySelector('.sheet .note.selected .notehead')!.getBoundingClientRect();
    const box = document.querySelector('[role="group"][aria-label="Finger for this note"]')!.parentElement!;
    const { top, bottom, left, right } = box.getBoundingClientRect();
    return {
      away: Math.max(top - at.bottom, at.top - bottom),
      beside: left - 40 <= at.left && at.right <= right + 40,
      inside: left >= 0 && right <= innerWidth,
    };
  });
  expect(near.away).toBeGreaterThan(0);
  expect(near.away).toBeLessThan(60);
  expect([near.beside, near.inside]).toEqual([true, true]);
  await expect(pad.first().locator('..')).toContainText(/on [A-G][♯♭]?\d/);
  await pad.first().getByRole('button', { name: 'Finger 4' }).tap();
  await expect(page.locator('.sheet .badge.decided')).toHaveText('4');
  await expect(pad.first().getByRole('button', { name: 'Finger 4, your choice' })).toBeVisible();
  // The settings are one line that opens; the panel a sheet from below.
  await expect(page.getByLabel(/^Level: /)).toBeHidden();
  await page.getByRole('button', { name: /^Level \d/ }).tap();
  await expect(page.getByLabel(/^Level: /)).toBeVisible();
  await page.getByRole('button', { name: /Show all options/ }).tap();
  await expect(page.getByRole('button', { name: 'More options' })).toBeVisible();
  await expectAccessible(page);
  await page.context().close();
});

test('a tune is written by touch alone', async ({ browser }) => {
  const page = await phone(browser);
  await open(page, '/pieces/new');
  const staff = page.getByRole('application', { name: /^Melody/ });
  await page.getByRole('button', { name: 'Half notes' }).tap();
  const keys = page.getByRole('img', { name: 'Piano keys to write notes' });
  for (const midi of [60, 64]) await keys.locator(`[data-midi="${midi}"]`).tap();
  await page.getByRole('button', { name: 'Quarters' }).tap();
  await keys.locator('[data-midi="67"]').tap();
  await page.getByRole('button', { name: 'Rest', exact: true }).tap();
  await page.getByRole('button', { name: 'Raise a step' }).tap();
  await page.getByRole('button', { name: 'Delete' }).tap();
  await expect(staff.locator('.note')).toHaveCount(3);
  await page.getByRole('button', { name: 'Chords' }).tap();
  await page.getByPlaceholder('C Am7, or C . G7 .').fill('C');
  await page.getByRole('button', { name: 'Next measure' }).tap();
  await expect(staff.locator('.harm').first()).toContainText('C');
  expect(await wide(page)).toBeLessThanOrEqual(0);
  await expectAccessible(page);
  await page.context().close();
});

test('no page is scrolled sideways on narrow screens, and targets are for a fingertip', async ({
  page: desk,
  browser,
}) => {
  test.slow();
  await open(desk, '/learners');
  const student = (await desk.getByRole('link', { name: 'Berit', exact: true }).getAttribute('href'))!;
  await open(desk, student);
  const steps = (await desk.getByRole('link', { name: 'Open the steps' }).getAttribute('href'))!;
  const handout = (await desk.getByRole('link', { name: 'Handout' }).first().getAttribute('href'))!;
  const version = handout.replace(/\/handout.*/, '');
  await open(desk, '/pieces');
  const piece = (await desk.getByRole('link', { name: 'Kite Weather' }).getAttribute('href'))!;
  const paths = ['/', '/week', '/learners', '/pieces', piece, student, steps, `${student}/month`, version];
  paths.push(
    `${version}/levels`,
    `${version}/compare`,
    `${version}/decisions`,
    `${version}/history`,
    handout,
  );
  paths.push(
    '/settings/studio',
    '/settings/levels',
    '/settings/hand',
    '/help',
    '/pieces/new',
    '/learners/new',
  );
  for (const width of [390, 320]) {
    const page = await phone(browser, width);
    for (const path of paths) {
      await page.goto(path);
      await scripted(page);
      expect(await wide(page), `${path} at ${width}`).toBeLessThanOrEqual(0);
      if (width !== 390) continue;
      const small = await page.evaluate(() =>
        [...document.querySelectorAll<HTMLElement>('a, button, select, input, summary, textarea')]
          .filter(
            (e) =>
              e.checkVisibility() &&
              !e.closest('.sr-only, .path-stones, svg') &&
              e.getClientRects().length > 0,
          )
          .filter(
            (e) =>
              !(
                e instanceof HTMLInputElement &&
                (e.type === 'hidden' || e.type === 'file' || e.type === 'range')
              ),
          )
          .map((e) => ({ e, box: e.getBoundingClientRect() }))
          .filter(({ box }) => box.height < 43.5 && box.width > 1)
          .map(
            ({ e, box }) =>
              `${e.tagName} “${(e.textContent || e.getAttribute('aria-label') || '').trim().slice(0, 30)}” ${Math.round(box.width)}×${Math.round(box.height)}`,
          ),
      );
      expect(small, path).toEqual([]);
    }
    await page.context().close();
  }
});
