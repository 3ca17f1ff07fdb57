/** Everything can be overruled: by its key, from the searched list, for a note, a stretch, and wherever a figure comes again. */
import { expect, test, type Page } from '@playwright/test';
import { benchReady, bring, expectAccessible, fromMenu } from './support';

async function openBench(page: Page, title: string): Promise<void> {
  await bring(page, title);
  await page.getByRole('button', { name: 'Make a version' }).click();
  await benchReady(page);
}
const panel = (page: Page) => page.getByRole('region', { name: 'Selected measure' });
const music = (page: Page) => page.getByRole('application', { name: /^Music of/ });
const measure = (page: Page, number: number) =>
  page.getByRole('button', { name: new RegExp(`^measure ${number}, difficulty`) });

/** Opens the list of what can be decided, looks for something and takes the first that is found. */
async function decide(page: Page, sought: string): Promise<void> {
  await music(page).focus();
  await page.keyboard.press('Enter');
  await page.getByPlaceholder('Type what you want to change').fill(sought);
  await page.keyboard.press('Enter');
}

test('the list of what can be decided is searched and taken by keyboard alone', async ({ page }) => {
  await openBench(page, 'Searched Song');
  await measure(page, 3).click();
  await decide(page, 'staccato');
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await expect(panel(page)).toContainText('Your choice: staccato.');
  await decide(page, 'note to the student');
  await page.getByRole('textbox', { name: 'Note to the student' }).fill('listen to the bass');
  await page.keyboard.press('Enter');
  await expect(music(page)).toContainText('measure 3: listen to the bass');
  await page.keyboard.press('m');
  await expect(page.getByRole('button', { name: /^measure 3, .*marked as a hard spot/ })).toBeVisible();
  await page.keyboard.press('s');
  const chords = page.getByRole('textbox', { name: 'Chords' });
  await chords.fill('nonsense');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert')).toContainText('Not understood');
  await expectAccessible(page);
  await chords.fill('Dm');
  await page.keyboard.press('Enter');
  await expect(panel(page).locator('.eyebrow').first()).toContainText('Dm');
  // Given back where it is listed.
  await panel(page)
    .getByRole('button', { name: /^Reset: chords/ })
    .click();
  await expect(panel(page).locator('.eyebrow').first()).not.toContainText('Dm');
});

test('a stretch is chosen by Shift, by whole measures and with the mouse, and decided at once', async ({
  page,
}) => {
  await openBench(page, 'Stretched Song');
  await measure(page, 1).click();
  await music(page).focus();
  await page.keyboard.press('Shift+ArrowRight');
  await page.keyboard.press('Shift+ArrowRight');
  await expect(panel(page)).toContainText('Selected: 3 notes');
  await page.keyboard.press('.');
  await benchReady(page);
  await page.getByRole('link', { name: '3 choices' }).click();
  await expect(page.getByRole('listitem').filter({ hasText: 'Staccato' })).toHaveCount(3);
  await page
    .getByRole('link', { name: /^measure 1, right hand/ })
    .first()
    .click();
  await benchReady(page);
  await music(page).focus();
  await page.keyboard.press('Control+Shift+ArrowRight');
  await expect(panel(page)).toContainText('Selected: measures 1 to 2');
  await page.keyboard.press('t');
  await expect(page.getByRole('link', { name: '4 choices' })).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(page.getByRole('link', { name: '3 choices' })).toBeVisible();
  // Drawn over with the mouse.
  const area = (index: number) => page.locator(`.measure-area[data-measure="${index}"]`);
  // The picture is drawn anew after the undo: what was found in the one before is gone.
  await benchReady(page);
  const placeOf = async (index: number): Promise<{ x: number; y: number }> => {
    let box: { x: number; y: number } | null = null;
    await expect.poll(async () => (box = await area(index).boundingBox())).not.toBeNull();
    return box!;
  };
  const [from, to] = [await placeOf(1), await placeOf(3)];
  await page.mouse.move(from.x + 6, from.y + 6);
  await page.mouse.down();
  await page.mouse.move(to.x + 6, to.y + 6, { steps: 6 });
  await page.mouse.up();
  await expect(panel(page)).toContainText('Selected: measures 1 to 3');
  // By touch: the next thing that is touched is the end.
  await measure(page, 2).click();
  await panel(page).getByRole('button', { name: 'Select more' }).click();
  await area(4).click({ position: { x: 6, y: 6 }, force: true });
  await expect(panel(page)).toContainText('Selected: measures 2 to 4');
});

test('what is decided holds wherever the figure comes again, asked once and kept', async ({ page }) => {
  await page.goto('/pieces');
  await page.getByRole('link', { name: 'Kite Weather' }).click();
  await page.getByRole('button', { name: 'Make a version' }).click();
  await benchReady(page);
  const decided = page.locator('.sheet .badge.decided');
  await measure(page, 2).click();
  await page.keyboard.press('4');
  await expect(decided).toHaveCount(1);
  const where = panel(page).getByRole('group', { name: 'Where else' });
  await expect(where).toContainText(/This passage repeats in \d+ place/);
  await where.getByRole('button', { name: 'Everywhere it repeats' }).click();
  const more = async (): Promise<number> => {
    await benchReady(page);
    return decided.count();
  };
  await expect.poll(more).toBeGreaterThan(1);
  const first = await more();
  // It is not asked again.
  await measure(page, 3).click();
  await page.keyboard.press('3');
  await expect.poll(more).toBeGreaterThan(first + 1);
  await expect(where).toHaveCount(0);
  await page.reload();
  await benchReady(page);
  await panel(page).getByRole('button', { name: 'Only here' }).click();
  await expect(panel(page)).toContainText('only where you make them');
});

test('a phrase is heard in another texture, level and key before it is taken', async ({ page }) => {
  await openBench(page, 'Tasted Song');
  await measure(page, 2).click();
  await music(page).focus();
  await page.keyboard.press('Shift+T');
  const heard = page.getByRole('group', { name: 'Playback' });
  await expect(heard).toContainText(/Trying: held root/);
  await expect(page.getByRole('button', { name: 'Stop' })).toBeVisible();
  await page.keyboard.press('Shift+T');
  await expect(heard).not.toContainText(/Trying: held root/);
  await page.keyboard.press('Shift+L');
  await expect(heard).toContainText(/Trying: level 1/);
  await page.keyboard.press('Shift+K');
  await expect(heard).toContainText(/Trying: [A-G]. ?major|Trying: [A-G] major/);
  await expect(page.getByRole('link', { name: '0 choices' })).toBeVisible();
  await page.keyboard.press('Shift+T');
  await page.keyboard.press('Shift+Enter');
  await expect(page.getByRole('link', { name: '1 choice' })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Play', exact: true })).toBeVisible();
});

test('what is shown is chosen once for this device; notes grow, the desk goes dark', async ({ page }) => {
  await openBench(page, 'Shown Song');
  await page.getByRole('button', { name: 'View' }).click();
  await page
    .getByRole('dialog', { name: 'View' })
    .getByRole('checkbox', { name: 'Counts', exact: true })
    .uncheck();
  await page.getByRole('checkbox', { name: 'Note names' }).check();
  await page.getByRole('button', { name: 'Larger music' }).click();
  await page.getByLabel('Theme').selectOption('dark');
  await expect(page.locator('html')).toHaveAttribute('data-theme', 'dark');
  await expect(page.locator('.sheet text.count')).toHaveCount(0);
  await expectAccessible(page);
  await page.keyboard.press('Escape');
  await page.reload();
  await expect(page.locator('html')).toHaveAttribute('data-theme', 'dark');
  await benchReady(page);
  await expect(page.locator('.sheet text.count')).toHaveCount(0);
  await expectAccessible(page);
  await page.getByRole('button', { name: 'View' }).click();
  await expect(page.getByText('115%')).toBeVisible();
});

test('a version is signed, and what comes after it is said; it is named, copied and compared', async ({
  page,
}) => {
  await openBench(page, 'Signed Song');
  await page.getByRole('button', { name: 'Mark as ready', exact: true }).click();
  await expect(page.getByRole('button', { name: /^Ready / })).toBeVisible();
  await music(page).focus();
  await page.keyboard.press('3');
  await expect(page.getByRole('button', { name: 'Mark ready again (1 change)' })).toBeVisible();
  await benchReady(page);
  await page.getByRole('link', { name: 'Signed Song' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Signed Song');
  const line = page.getByRole('listitem').filter({ hasText: '1 change since' });
  await line.getByText('Name, copy, compare').click();
  await line.getByLabel('Name').fill('For the summer');
  await line.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByRole('link', { name: 'For the summer', exact: true })).toBeVisible();
  await line.getByLabel('Copy for').selectOption({ index: 1 });
  await line.getByRole('button', { name: 'Copy', exact: true }).click();
  await benchReady(page);
  await expect(page.getByRole('link', { name: /^[1-3] choices?$/ })).toBeVisible();
  await music(page).focus();
  await page.keyboard.press('5');
  await benchReady(page);
  await fromMenu(page, 'Compare versions');
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Signed Song: two versions');
  await expect(page.getByText(/right hand: fingers/).first()).toBeVisible();
  await expect(page.locator('.measure-area.current').first()).toBeAttached();
  await expectAccessible(page);
});

test('pieces are searched and filtered', async ({ page }) => {
  await bring(page, 'Findable Song');
  await page.goto('/pieces');
  const list = page.getByRole('main').getByRole('link', { name: 'Findable Song' });
  await page.getByRole('searchbox', { name: 'Search' }).fill('findable');
  await expect(list).toBeVisible();
  await expect(page.getByText(/^1 of \d+ pieces$/)).toBeVisible();
  await page.getByLabel('Key', { exact: true }).selectOption('G major');
  await expect(page.getByText('No pieces match.')).toBeVisible();
  await page.getByRole('button', { name: 'Clear filters' }).click();
  await expect(list).toBeVisible();
  await page.getByLabel('Student', { exact: true }).selectOption('Runa');
  await expect(page.getByRole('link', { name: 'Kite Weather' })).toBeVisible();
  await expect(list).toHaveCount(0);
});
