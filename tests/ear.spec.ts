/** The ear of a lesson: a take on the simulated instrument is marked by measure, and what it proposes is accepted or overruled. */
import { expect, test, type Page } from '@playwright/test';
import { expectAccessible, open } from './support';

async function openLesson(page: Page, name: string): Promise<void> {
  await open(page, '/');
  await page.getByRole('button', { name: `Start the lesson of ${name}` }).click();
  await page.waitForURL(/\/lessons\//);
  await page.goto(`${page.url()}${page.url().includes('?') ? '&' : '?'}keyboard=simulated`);
  await expect(page.getByRole('list', { name: 'Steps' }).getByRole('listitem').first()).toBeVisible();
  await expect(page.getByRole('button', { name: 'Listen to the playing' })).toBeEnabled();
}
const heard = (page: Page) => page.getByRole('region', { name: 'What was heard' });
const done = (page: Page) => page.locator('[aria-pressed=true][aria-label^="Uncheck"]');

test('a take is heard, marked by measure, and its grade accepted or overruled by one key', async ({
  page,
}) => {
  await openLesson(page, 'Kasimir');
  const before = await done(page).count();
  await page.getByRole('button', { name: 'Listen to the playing' }).click();
  await expect(heard(page)).toContainText('Listening to a simulated keyboard');
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Let the pretend player play' }).click();
  await expect(heard(page).getByRole('list', { name: 'Measures as heard' })).toBeVisible();
  // It ends by itself, a moment after the last note.
  const accept = heard(page).getByRole('button', { name: /^Accept/ });
  await expect(accept).toBeVisible({ timeout: 90_000 });
  await expect(heard(page).getByRole('status')).toContainText(/at \d+/);
  await expectAccessible(page);
  await page.keyboard.press('a');
  await expect(heard(page)).toHaveCount(0);
  await expect(done(page)).toHaveCount(before + 1);

  // Overruled: nothing was played but one key, and the teacher grades it all the same.
  await page.keyboard.press('l');
  await expect(heard(page)).toContainText('Listening');
  await page.evaluate(() => window.dispatchEvent(new CustomEvent('keypath:key', { detail: 60 })));
  await page.evaluate(() => window.dispatchEvent(new CustomEvent('keypath:key', { detail: 64 })));
  await page.keyboard.press('l');
  await expect(accept).toBeVisible();
  await page.keyboard.press('3');
  await expect(heard(page)).toHaveCount(0);
  await expect(page.getByText('Saved', { exact: true })).toBeVisible();

  // What was heard stays with the student.
  await page.getByRole('link', { name: 'Kasimir', exact: true }).first().click();
  await expect(page.getByRole('region', { name: 'As heard' })).toContainText('heard');
});

test('without an instrument a sentence says so, and the lesson goes on', async ({ page }) => {
  await open(page, '/');
  await page.getByRole('button', { name: 'Start the lesson of Kasimir' }).click();
  await page.waitForURL(/\/lessons\//);
  await expect(page.getByRole('button', { name: 'Listen to the playing' })).toBeEnabled();
  await page.getByRole('button', { name: 'Listen to the playing' }).click();
  await expect(heard(page).getByRole('alert')).toContainText(/MIDI keyboard/);
  await heard(page).getByRole('button', { name: 'Close' }).click();
  await expect(heard(page)).toHaveCount(0);
});
