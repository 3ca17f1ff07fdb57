/** Learners: adding one, changing what is known of them, the lesson log. */
import { expect, test } from '@playwright/test';
import { expectAccessible, fillSegments } from './support';

test('a student is added, corrected, and a lesson is logged', async ({ page }) => {
  await page.goto('/learners');
  await page.getByRole('link', { name: 'Add a student' }).click();
  await page.getByLabel('Name').fill('Ilse');
  await page.getByLabel('Lesson day').selectOption('Thursday');
  await fillSegments(page, 'Lesson time', '15:00');
  await page.getByLabel('Lowest sung note').fill('deep');
  await page.getByRole('button', { name: 'Add' }).click();
  await expect(page.getByRole('alert')).toContainText('Write a note with its octave');
  await expect(page.getByLabel('Name')).toHaveValue('Ilse'); // nothing typed is lost
  await page.getByLabel('Lowest sung note').fill('A3');
  await page.getByRole('button', { name: 'Add' }).click();
  await expect(page.getByRole('heading', { level: 1, name: 'Ilse' })).toBeVisible();
  await expect(page.getByText('Thursday, 15:00')).toBeVisible();
  await expect(page.getByText('Reaches an octave right')).toBeVisible();

  await page.getByText('Change', { exact: true }).click();
  await page.getByLabel(/^Right/).selectOption('a seventh');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('Reaches a seventh right')).toBeVisible();

  await page.getByLabel('Lesson notes and practice').fill('Curved fingers; two measures a day.');
  await page.getByRole('button', { name: 'Add note' }).click();
  await expect(page.getByText('Curved fingers; two measures a day.')).toBeVisible();
  await page.reload();
  await expect(page.getByText('Curved fingers; two measures a day.')).toBeVisible();
});

test('what is not there says so', async ({ page }) => {
  const answer = await page.goto('/learners/nobody');
  expect(answer?.status()).toBe(404);
  await expect(page.getByText('This student isn’t here any more.')).toBeVisible();
  await expectAccessible(page);
  expect((await page.goto('/nowhere'))?.status()).toBe(404);
  await expect(page).toHaveTitle('Page not found · Key Path');
  await expectAccessible(page);
});

test('what is typed before the page’s script has begun stays', async ({ page }) => {
  let begin: () => void = () => undefined;
  const begun = new Promise<void>((done) => (begin = done));
  await page.route('**/_app/**/*.js', async (route) => {
    await begun;
    await route.continue();
  });
  await page.goto('/learners/new', { waitUntil: 'commit' });
  await page.getByLabel('Name').fill('Early Bird');
  await page.getByLabel('Lesson day').selectOption('Friday');
  await page.getByLabel('Lowest sung note').fill('deep');
  begin();
  await expect(page.locator('html[data-ready]')).toBeVisible();
  await expect(page.getByLabel('Name')).toHaveValue('Early Bird');
  await expect(page.getByLabel('Lesson day')).toHaveValue('5');
  await page.getByRole('button', { name: 'Add' }).click();
  await expect(page.getByRole('alert')).toContainText('Write a note with its octave');
  await expect(page.getByLabel('Name')).toHaveValue('Early Bird');
});
