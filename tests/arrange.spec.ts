/** One source, many versions: style, texture, levels side by side, the ranking of keys, levels of one's own. */
import { expect, test, type Page } from '@playwright/test';
import { benchReady, bring, expectAccessible, open, setLevel } from './support';

async function openBench(page: Page, title: string): Promise<void> {
  await bring(page, title);
  await page.getByRole('button', { name: 'Make a version' }).click();
  await benchReady(page);
}

const choose = async (page: Page, control: RegExp, option: string | RegExp): Promise<void> => {
  await page.getByLabel(control).first().click();
  await page.getByRole('listbox').getByRole('option', { name: option }).click();
};

test('the left hand gets another texture, for the whole, a section and a measure, and says why', async ({
  page,
}) => {
  await openBench(page, 'Textured Song');
  await setLevel(page, '4');
  await choose(page, /^Left hand: /, 'Stride bass');
  const panel = page.getByRole('region', { name: 'Selected measure' });
  await page.getByRole('button', { name: /^measure 1, difficulty/ }).click();
  await expect(panel).toContainText('the root of');
  await expect(page.getByText(/added \(|enriched by/)).toBeVisible();
  await panel.getByLabel('Left hand in this measure').selectOption({ value: 'held-root' });
  await benchReady(page);
  await expect(panel.getByRole('group', { name: /Left/ }).or(panel)).toContainText('Left hand');
  await page.getByRole('application', { name: /^Music of/ }).focus();
  await page.keyboard.press('t');
  await expect(panel.getByLabel('Left hand in this measure')).toHaveValue('root-fifth');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(panel.getByLabel('Left hand in this measure')).toHaveValue('held-root');
  await panel.getByLabel(/^Left hand in section/).selectOption({ value: 'own' });
  await page.getByRole('button', { name: /^measure 2, difficulty/ }).click();
  await expect(panel).toContainText('the left hand as in the source');
  await page.reload();
  await benchReady(page);
  await expect(page.getByLabel(/^Left hand: Stride bass/)).toBeVisible();
});

test('a song becomes chords to sing to, with an introduction that can go', async ({ page }) => {
  await openBench(page, 'Sung Song');
  await choose(page, /^Style: /, /^sing-along/);
  await expect(page.getByText(/accompaniment notes instead of the source’s \d+/)).toBeVisible();
  await expect(page.getByRole('heading', { name: 'Introduction' })).toBeVisible();
  const more = page.getByRole('button', { name: /^More settings/ });
  await more.click();
  await choose(page, /^Introduction: /, 'none');
  await expect(page.getByRole('heading', { name: 'Introduction' })).toHaveCount(0);
  await choose(page, /^Chord rhythm: /, 'Held');
  await benchReady(page);
  await expect(page.getByLabel('Chord rhythm: Held')).toBeVisible();
});

test('hands and keyboard redraw the version', async ({ page }) => {
  await openBench(page, 'Small Hands');
  await page.getByLabel(/^Hands and keyboard: an octave; 61 keys/).click();
  await page.getByLabel('Left hand reaches').selectOption('a seventh');
  await page.getByRole('combobox', { name: /^Keyboard/ }).selectOption('88 keys, A0 to C8');
  await page.keyboard.press('Escape');
  await expect(
    page.getByLabel(/^Hands and keyboard: a seventh left, an octave right; 88 keys/),
  ).toBeVisible();
  await benchReady(page);
});

test('the same phrase at every level; the ticked ones become versions', async ({ page }) => {
  await openBench(page, 'Set For A Class');
  await page.getByRole('link', { name: 'Compare levels' }).click();
  await expect(page.getByRole('img', { name: /^Level \d, pickup to measure/ })).toHaveCount(6);
  await expect(page.locator('.sheet > svg')).toHaveCount(6, { timeout: 30_000 });
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Next phrase' }).click();
  await expect(page.getByRole('img', { name: /^Level 6, measures/ })).toBeVisible();
  await page.getByRole('checkbox', { name: /^1 First steps/ }).check();
  await page.getByRole('checkbox', { name: /^4 Patterns/ }).check();
  await page.getByRole('button', { name: 'Make versions of the checked levels' }).click();
  await expect(page.getByRole('link', { name: /^Level 1 in/ })).toBeVisible();
  await expect(page.getByRole('link', { name: /^Level 4 in/ })).toBeVisible();
});

test('keys are ranked, weighed anew, and taken with a click', async ({ page }) => {
  await openBench(page, 'Keyed Song');
  await page.getByRole('link', { name: 'Compare keys' }).click();
  const keys = page.getByRole('list', { name: 'All keys, best first' });
  await expect(keys.getByRole('button')).toHaveCount(13, { timeout: 20_000 });
  await expect(page.getByRole('list', { name: 'Best three keys' }).getByRole('listitem')).toHaveCount(3);
  await expectAccessible(page);
  // Distance alone puts the source's own key first.
  for (const name of ['Reading', 'Hands', 'Voice', 'Keyboard'])
    await page.getByLabel(`Weight of ${name}`).fill('0');
  await page.getByLabel('Weight of Distance').fill('90');
  await expect(keys.getByRole('button').first()).toHaveAccessibleName(/^Take E major/);
  await keys.getByRole('button', { name: /^Take G major/ }).click();
  await benchReady(page);
  await expect(page.getByLabel('Key: G major')).toBeVisible();
});

test('the chart of a piece in all twelve keys', async ({ page }) => {
  await bring(page, 'Twelve Times');
  await page.getByRole('link', { name: 'Chord chart in all 12 keys' }).click();
  await expect(page.getByRole('region', { name: /major$/ })).toHaveCount(12);
  await expectAccessible(page);
  const download = page.waitForEvent('download');
  await page.getByRole('link', { name: /^Download/ }).click();
  expect((await download).suggestedFilename()).toBe('Twelve Times, all keys.pro');
});

test('a level is changed, one is added between two, and all are given back', async ({ page }) => {
  await open(page, '/settings/levels?level=5');
  await expectAccessible(page);
  await page.getByLabel('Left hand, notes at once').fill('9');
  await page.getByRole('button', { name: 'Save level' }).click({ noWaitAfter: true });
  // The browser itself refuses what the field does not take.
  await expect(page.getByLabel('Left hand, notes at once')).toHaveJSProperty('validity.valid', false);
  await page.getByLabel('Left hand, notes at once').fill('1');
  await page.getByLabel('Name').fill('Nearly full');
  await page.getByRole('button', { name: 'Save level' }).click();
  await expect(page.getByRole('link', { name: '5 Nearly full' })).toBeVisible();
  await page.getByRole('button', { name: 'Add a level after 5' }).click();
  await expect(page.getByRole('heading', { name: /^5½/ })).toBeVisible();
  await openBench(page, 'Own Levels');
  await setLevel(page, '5½');
  await expect(page.getByText(/^Level 5½ \(/)).toBeVisible();
  await page.goto('/settings/levels');
  await page.getByRole('button', { name: 'Reset to built-in levels' }).click();
  await expect(page.getByRole('link', { name: '5 Full sound' })).toBeVisible();
  await expect(page.getByRole('link', { name: /5½/ })).toHaveCount(0);
});
