/** The practice room as one file: taken home, opened from the disk without a network, and its results brought back once. */
import { expect, test } from '@playwright/test';
import { join } from 'node:path';
import { expectAccessible, firstTake, withRoom } from './support';

test('a file is taken home, practised from without a network, and its results are added once', async ({
  page,
  context,
}, info) => {
  const { student, name } = await withRoom(page, 'Tilda');
  await page.goto(`/learners/${student}/room`);
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'Take home' }).click(),
  ]);
  expect(file.suggestedFilename()).toBe(`${name}, practice room.html`);
  const path = join(info.outputDir, 'room.html');
  await file.saveAs(path);

  const home = await context.newPage();
  const asked: string[] = [];
  home.on('request', (request) => {
    if (!/^(data|blob):/.test(request.url())) asked.push(request.url());
  });
  await home.setViewportSize({ width: 390, height: 844 });
  await home.goto(`file://${path}?keyboard=simulated`);
  await expect(home.getByText(/^Today: \d steps?, about \d+ minutes\.$/)).toBeVisible();
  await expectAccessible(home);
  await home
    .getByRole('button', { name: /^Listen/ })
    .first()
    .click();
  await home.getByRole('button', { name: 'Hear how it goes' }).click();
  const heard = await firstTake(home);
  // Broken off: no step is done by that.
  await home.getByRole('button', { name: 'Done', exact: true }).click();
  await expect(heard.getByRole('button', { name: /This step is done/ })).toHaveCount(0);
  await home.getByRole('button', { name: 'Today' }).click();
  // It outlives the page.
  await home.reload();
  await expect(home.getByRole('button', { name: /^Listen.*done/ })).toBeVisible();
  const [results] = await Promise.all([
    home.waitForEvent('download'),
    home.getByRole('button', { name: 'Save results' }).click(),
  ]);
  await expectAccessible(home);
  // Nothing was asked of anybody: the file itself, twice.
  expect(asked.filter((url) => !url.startsWith('file:'))).toEqual([]);
  expect(asked).toHaveLength(2);
  const saved = join(info.outputDir, 'results.txt');
  await results.saveAs(saved);

  await page.getByLabel('Results from home, as a file').setInputFiles(saved);
  await page.getByRole('button', { name: 'Add results' }).click();
  await expect(page.getByRole('status').first()).toContainText(
    /^Added: 2 results( and \d minutes? of practice)?\.$/,
  );
  await expect(page.getByRole('cell', { name: `${name} says so` })).toHaveCount(1);
  await expect(page.getByRole('cell', { name: 'heard', exact: true })).toHaveCount(1);
  await page.getByLabel('Results from home, as a file').setInputFiles(saved);
  await page.getByRole('button', { name: 'Add results' }).click();
  await expect(page.getByRole('status').first()).toContainText('already added');
  await expect(page.getByRole('cell', { name: `${name} says so` })).toHaveCount(1);
  // What is cut off is said, and what was typed stays.
  await page.getByLabel('or as text').fill('kp1.eNqdUsuK2zAU');
  await page.getByRole('button', { name: 'Add results' }).click();
  await expect(page.getByRole('alert')).toContainText('cut off');
  await expect(page.getByLabel('or as text')).toHaveValue('kp1.eNqdUsuK2zAU');
});
