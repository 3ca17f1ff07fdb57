/** A piece is written here, by keyboard alone, by touching keys, by an instrument, or as text; and a wrong source is mended. */
import { expect, test, type Page } from '@playwright/test';
import { benchReady, bring, expectAccessible, open } from './support';

/** A hand at the keyboard: presses keys and counts them. */
function counting(page: Page) {
  let keys = 0;
  return {
    press: async (...pressed: readonly string[]): Promise<void> => {
      for (const key of pressed) await page.keyboard.press(key);
      keys += pressed.length;
    },
    type: async (text: string): Promise<void> => {
      await page.keyboard.type(text);
      keys += text.length;
    },
    get keys() {
      return keys;
    },
  };
}

/** What a practised hand presses in a minute, thinking of the music and not of the keys. */
const KEYS_A_MINUTE = 150;

test('sixteen measures with chords and words, by keyboard only, in under five minutes of keys', async ({
  page,
}) => {
  await open(page, '/pieces/new');
  const board = page.getByRole('application', { name: /^Melody/ });
  await expect(board).toBeFocused();
  const began = Date.now();
  const hand = counting(page);
  const letters = (text: string) => hand.press(...text.replace(/ /g, ''));
  // Eight measures, copied and ended otherwise: 4 quarters, 8 eighths, 2 halves, a dotted one.
  await letters('4 g a b g');
  await letters('4 a b 2 c');
  await letters('4 b a g a');
  await hand.press('1', 'd');
  await letters('4 g a b d');
  await letters('8 c b 4 a 2 f');
  await letters('4 g b a f');
  await hand.press('2', '.', 'g', '4', 'r');
  for (let i = 0; i < 8; i++) await hand.press('Control+Shift+ArrowLeft');
  await hand.press('Control+c', 'End', 'Control+v');
  await expect(page.locator('#compose-said')).toContainText(/measure 16/i);
  // Chords, measure by measure.
  await hand.press('Home', 's');
  await expect(page.getByRole('textbox', { name: /^Chords of measure 1/ })).toBeFocused();
  for (const row of [
    'G',
    'C',
    'G D',
    'D7',
    'G',
    'Am D7',
    'Em D',
    'G',
    'G',
    'C',
    'G D',
    'D7',
    'G',
    'Am D7',
    'Em D',
  ]) {
    await hand.type(row);
    await hand.press('Enter');
  }
  await hand.type('G');
  await hand.press('Enter');
  await expect(board).toBeFocused();
  // Words, one line for all of it.
  await hand.press('End', 'w');
  await hand.type(
    'Low light is on the wa-ter now and ev-ery boat is home, the har-bour bell is slow and low and no one is a-lone now, ' +
      'late boats come o-ver qui-et sand and all the nets are dry, the lan-terns on the wall go out be-neath a si-lent sky',
  );
  await hand.press('Enter');
  await hand.press('Home', 'n');
  await hand.type('Verse');
  await hand.press('Enter');
  await expect(board.getByText('Verse')).toBeVisible();
  await expect(board.locator('text').filter({ hasText: 'har' }).first()).toBeVisible();
  await expectAccessible(page);
  const seconds = (Date.now() - began) / 1000;
  console.log(`sixteen measures: ${hand.keys} keys, the machine was waited for ${seconds.toFixed(0)} s`);
  expect(hand.keys / KEYS_A_MINUTE + seconds / 60).toBeLessThan(5);
  // What is written outlives the page.
  await page.reload();
  await expect(board.locator('text').filter({ hasText: 'har' }).first()).toBeVisible();
  await page.getByRole('textbox', { name: 'Title' }).fill('Harbour Evening');
  await page.getByRole('textbox', { name: 'Title' }).press('Tab');
  await page.getByRole('button', { name: 'Save this piece' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Harbour Evening');
  await expect(page.getByText(/\b16 in all/).first()).toBeVisible();
  await page.getByRole('button', { name: 'Make a version' }).click();
  await benchReady(page);
  await expect(
    page.locator('.sheet').first().locator('text').filter({ hasText: 'wa' }).first(),
  ).toBeVisible();
});

test('keys are touched, or played on an instrument; without one it is said', async ({ page }) => {
  await open(page, '/pieces/new?keyboard=simulated');
  const said = page.locator('#compose-said');
  await page.locator('rect[data-midi="67"]').click();
  await expect(said).toContainText('G4');
  await page.getByRole('button', { name: 'Play it on a MIDI keyboard' }).click();
  await expect(page.getByRole('button', { name: 'Listening to a simulated keyboard' })).toBeVisible();
  for (const midi of [69, 71, 72])
    await page.evaluate((key) => window.dispatchEvent(new CustomEvent('keypath:key', { detail: key })), midi);
  await expect(said).toContainText('C5');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(said).toContainText('B4');
  await page.goto('/pieces/new');
  await page.getByRole('button', { name: 'Play it on a MIDI keyboard' }).click();
  await expect(
    page.getByText(
      /^(No MIDI keyboard is connected|This browser doesn’t support MIDI|The browser wasn’t allowed)/,
    ),
  ).toBeVisible();
});

test('text is seen as it is typed, and what is wrong is said with its line', async ({ page }) => {
  await open(page, '/pieces/new');
  await page.getByRole('radio', { name: 'As text' }).click();
  const text = page.getByRole('textbox', { name: /^ABC, or chords/ });
  await text.fill('X:1\nT: Typed Gate\nM: 3/4\nL: 1/4\nK: G\nG A B | A F D | G3 |]');
  await expect(page.getByRole('img', { name: 'What is typed: Typed Gate' })).toBeVisible();
  await text.fill('X:1\nT: Typed Gate\nM: 3/4\nL: 1/4\nK: G\nG A B | A F D |\nG3 Q |]');
  await page.getByRole('button', { name: 'Go to line 7' }).click();
  expect(
    await page.evaluate(
      () =>
        window.getSelection()?.toString() ||
        (document.activeElement as HTMLTextAreaElement).value.slice(
          (document.activeElement as HTMLTextAreaElement).selectionStart,
          (document.activeElement as HTMLTextAreaElement).selectionEnd,
        ),
    ),
  ).toBe('G3 Q |]');
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Save this piece' }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Save this piece' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Typed Gate');
});

test('a wrong note of the source is put right for every version, and given back as it came', async ({
  page,
}) => {
  await bring(page, 'Mistaken Song');
  const piece = page.url();
  await page.getByRole('button', { name: 'Make a version' }).click();
  await benchReady(page);
  const said = page.locator('footer [aria-live]');
  await page.getByRole('button', { name: /^measure 1, difficulty/ }).click();
  await expect(said).toContainText('right hand, F 4');
  await page.getByRole('application', { name: /^Music of/ }).focus();
  await page.keyboard.press('Alt+ArrowUp');
  await expect(said).toContainText('right hand, G 4');
  await benchReady(page);
  await page.getByRole('link', { name: '1 choice' }).click();
  await page.getByRole('button', { name: /^Correct the source: a step higher/ }).click();
  await expect(page.getByText('No choices yet.')).toBeVisible();
  // Another version has it too.
  await page.goto(piece);
  await expect(page.getByRole('region', { name: 'Corrections' })).toContainText(/measure 1.*: a step higher/);
  await page.getByRole('button', { name: 'Make a version' }).click();
  await benchReady(page);
  await page.getByRole('button', { name: /^measure 1, difficulty/ }).click();
  await expect(said).toContainText('right hand, G 4');
  await page.goto(piece);
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect(page.getByRole('region', { name: 'Corrections' })).toHaveCount(0);
  await fromPieceToBench(page);
  await page.getByRole('button', { name: /^measure 1, difficulty/ }).click();
  await expect(said).toContainText('right hand, F 4');
});

async function fromPieceToBench(page: Page): Promise<void> {
  await page
    .getByRole('link', { name: /^Level 2/ })
    .first()
    .click();
  await benchReady(page);
}
