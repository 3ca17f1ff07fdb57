/** From a file to a fingered page, a lesson and a learner's record: the whole path, as a teacher walks it. */
import { expect, test } from '@playwright/test';
import { allPages, benchReady, bring, fromMenu, setLevel } from './support';

test('from uploading a file to the printed handout and the student’s record', async ({ page }) => {
  await bring(page, 'Window Song');
  await expect(page.getByText('E major, 4/4')).toBeVisible();
  await expect(page.getByText('8 measures to learn, 8 in all')).toBeVisible();
  await expect(page.getByText('E F♯ G♯ A B C♯ D♯')).toBeVisible();
  await expect(page.getByRole('link', { name: /^B7?\s+V7? / }).first()).toBeVisible();

  // A level 2 version in an easier key, for a learner's hands.
  await page.getByLabel(/^Level/).selectOption('2');
  await page.getByLabel(/^Key/).selectOption('C');
  await page.getByRole('combobox', { name: 'For', exact: true }).selectOption({ label: 'Runa' });
  await page.getByRole('button', { name: 'Make a version' }).click();
  await benchReady(page);
  await expect(page.getByText('Level 2 (Two hands), C major')).toBeVisible();
  await expect(page.locator('.sheet .badge').first()).toBeVisible();
  await expect(page.locator('.sheet .harm').first()).toContainText('C');
  await expect(page.locator('.sheet text.count').first()).toHaveText('4'); // the pickup
  expect(await page.locator('.sheet text.count.held').count()).toBeGreaterThan(0);

  // Three fingers overruled: by clicking a note, by walking to one, by clicking its badge.
  const decided = page.locator('.sheet .badge.decided');
  await page.locator('.sheet .note[data-id="m1n0"] .notehead').click();
  await page.keyboard.press('3');
  await expect(decided).toHaveCount(1);
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('4');
  await expect(decided).toHaveCount(2);
  await page.locator('.sheet .badge.left').first().click();
  await page.keyboard.press('4');
  await expect(decided).toHaveCount(3);
  await expect(page.locator('.sheet .badge.left.decided')).toHaveText('4');

  // One given back, undone, redone, undone: what stands at the end is what is kept.
  await page.keyboard.press('0');
  await expect(decided).toHaveCount(2);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(decided).toHaveCount(3);
  await page.keyboard.press('Control+Shift+z');
  await expect(decided).toHaveCount(2);
  await page.keyboard.press('Control+z');
  await expect(decided).toHaveCount(3);
  await benchReady(page);
  await page.reload();
  await benchReady(page);
  await expect(decided).toHaveCount(3);

  // Another level and key, and the decisions are still there.
  await setLevel(page, '3');
  await expect(page.getByText('Level 3 (Chords), C major')).toBeVisible();
  await expect(decided).toHaveCount(3);
  await page.getByRole('combobox', { name: /^Key: / }).click();
  await page.getByRole('option', { name: /^G major/ }).click();
  await expect(page.getByText('Level 3 (Chords), G major')).toBeVisible();
  await expect(decided).toHaveCount(3);
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+z');
  await expect(page.getByText('Level 2 (Two hands), C major')).toBeVisible();
  await benchReady(page);

  // Given to a learner.
  await fromMenu(page, 'Assign to a student');
  await page.getByRole('dialog').getByRole('checkbox', { name: /^Teo/ }).check();
  await page.getByRole('button', { name: 'Assign to Teo' }).click();
  await expect(page.getByText('Assigned to Teo.')).toBeVisible();
  await expect(page.getByRole('link', { name: 'Teo’s practice plan' })).toBeVisible();
  await expect(page.getByRole('dialog').getByText('assigned', { exact: true }).first()).toBeVisible();
  await page.getByRole('button', { name: 'Close', exact: true }).click();

  // The handout prints on both papers, with the chosen fingers where they are asked for.
  await fromMenu(page, 'Handout');
  const paper = page.locator('.page-of-paper');
  await expect(page.getByRole('heading', { level: 1, name: 'Window Song' })).toBeVisible();
  await expect(paper.first().getByText('Teo', { exact: true })).toBeVisible();
  await expect(paper.first().getByText(/^Copyright unknown/)).toBeVisible();
  // The score alone, whatever another test has left chosen for the studio.
  await page.getByLabel('Practice', { exact: true }).uncheck();
  await expect(page.locator('.page-of-paper .badge.decided')).toHaveCount(0);
  await page.getByLabel('Only your fingers').check();
  await expect(page.locator('.page-of-paper .badge.decided')).toHaveCount(3);
  for (const [name, width, height] of [
    ['Letter', 612, 792],
    ['A4', 595, 842],
  ] as const) {
    await page.locator('select[name=paper]').selectOption(name);
    await expect(
      page
        .locator(`.page-of-paper svg[viewBox="0 0 ${width === 595 ? '595.28 841.89' : '612 792'}"]`)
        .first(),
    ).toBeVisible();
    const pages = await allPages(page);
    const pdf = (await page.pdf({ preferCSSPageSize: true })).toString('latin1');
    const [, w, h] = /\/MediaBox\s*\[\s*0 0 ([\d.]+) ([\d.]+)/.exec(pdf)!;
    expect(Math.abs(Number(w) - width)).toBeLessThan(2);
    expect(Math.abs(Number(h) - height)).toBeLessThan(2);
    // As many pages as are shown.
    expect(pdf.match(/\/Type\s*\/Page\b/g)!.length).toBe(pages);
  }

  // The learner's record: a step ticked with its tempo, and what is next.
  await page.goto('/learners');
  await page.getByRole('link', { name: /Window Song/ }).click();
  const next = page.getByRole('region', { name: 'Next step' });
  await expect(next).toContainText('pickup to measure 4: listen');
  await next.getByRole('button', { name: 'Done' }).click();
  await expect(next).toContainText('right hand, counting aloud');
  await next.getByLabel('Tempo reached').fill('52');
  await next.getByRole('button', { name: 'Done' }).click();
  await expect(next).toContainText(': right hand, ♩');
  await expect(page.getByText('♩ = 52', { exact: false }).first()).toBeVisible();

  // A tempo that is none is refused and nothing is recorded.
  await next.getByLabel('Tempo reached').fill('fast');
  await next.getByRole('button', { name: 'Done' }).click();
  await expect(page.getByRole('alert')).toContainText('Write the tempo as a number');
  await expect(next).toContainText(': right hand, ♩');

  // Ticked in the list, taken back again; the record is still there after a reload.
  const chunk = page.getByRole('region', { name: /pickup to measure 4/ });
  await chunk.getByRole('button', { name: /^Check off: Left hand,/ }).click();
  await expect(chunk.getByRole('button', { name: /^Uncheck: Left hand,/ })).toBeVisible();
  await chunk.getByRole('button', { name: /^Uncheck: Left hand,/ }).click();
  await expect(chunk.getByRole('button', { name: /^Check off: Left hand,/ })).toBeVisible();
  await page.reload();
  await expect(chunk.getByRole('button', { name: /^Uncheck: Right hand, counting/ })).toBeVisible();

  // It shows on the learner's page and on Today.
  await page.getByRole('link', { name: 'Teo' }).click();
  await expect(page.getByRole('region', { name: 'Window Song' })).toContainText('up to ♩ = 52');
  await page.getByRole('link', { name: 'Today' }).click();
  await expect(page.getByRole('listitem').filter({ hasText: 'Window Song' }).first()).toContainText(
    ': right hand, ♩',
  );
});
