/** The teacher's own measure: from a file to a signed version in minutes. Prints what was pressed and what was waited for. */
import { expect, test } from '@playwright/test';
import { writeMusicXml } from '../src/lib/core/io/musicxml/write';
import { scoreFrom } from '../src/lib/core/test/shorthand';
import { benchReady, open, setLevel } from './support';

/** A song of 64 measures: verses and choruses, with a bass and broken chords under the tune. */
function song(title: string): Buffer {
  const verse = ['E5:1 G5:1 C6:2', 'B5:1 A5:1 G5:2', 'A5:1 F5:1 D5:1 F5:1', 'E5:4'];
  const chorus = ['C6:1.5 B5:0.5 A5:1 G5:1', 'F5:1 A5:1 G5:2', 'E5:1 D5:1 C5:1 D5:1', 'C5:4'];
  const left = [
    'C3:1 [E3 G3]:1 C3:1 [E3 G3]:1',
    'G2:1 [B2 D3]:1 G2:1 [B2 D3]:1',
    'F2:1 [A2 C3]:1 G2:1 [B2 D3]:1',
    'C3:4',
  ];
  const chords = ['C', 'G', 'F G', 'C'];
  const times = (list: readonly string[], n: number): string[] =>
    Array.from({ length: n }, () => list).flat();
  const right = [...times(verse, 4), ...times(chorus, 4), ...times(verse, 4), ...times(chorus, 4)];
  return Buffer.from(
    writeMusicXml(
      scoreFrom({
        title,
        key: 'C',
        time: { beats: 4, beatType: 4 },
        tempo: 100,
        right: right.join(' | '),
        left: times(left, 16).join(' | '),
        chords: times(chords, 16).join(' | '),
        sections: { 1: 'Verse', 17: 'Chorus', 33: 'Verse 2', 49: 'Chorus 2' },
      }),
    ),
  );
}

/** A practised hand presses so many keys in a minute, thinking of the music. */
const KEYS_A_MINUTE = 60;

test('a song of 64 measures: brought, arranged, decided, heard and signed', async ({ page }) => {
  test.setTimeout(180_000);
  let keys = 0;
  const press = async (...pressed: readonly string[]): Promise<void> => {
    for (const key of pressed) {
      await page.keyboard.press(key);
      keys += 1;
    }
  };
  const music = page.getByRole('application', { name: /^Music of/ });
  const began = Date.now();
  await open(page, '/pieces');
  await page
    .locator('input[type=file]')
    .setInputFiles({ name: 'Long Shore.musicxml', mimeType: 'application/xml', buffer: song('Long Shore') });
  await page.getByRole('button', { name: 'Save this piece' }).click();
  await expect(page.getByRole('heading', { level: 1, name: 'Long Shore' })).toBeVisible();
  await page.getByRole('button', { name: 'Make a version' }).click();
  await benchReady(page);
  // For a small hand.
  await setLevel(page, '2');
  await page.getByLabel(/^Hands and keyboard/).click();
  await page.getByLabel('Left hand reaches').selectOption('a seventh');
  await page.getByLabel('Right hand reaches').selectOption('a seventh');
  await press('Escape');
  await benchReady(page);
  keys += 8;
  await music.focus();
  const decide = async (sought: string, words?: string): Promise<void> => {
    await press('Enter');
    await page.getByPlaceholder('Type what you want to change').fill(sought);
    keys += sought.length;
    await press('Enter');
    if (words) {
      await page.keyboard.type(words);
      keys += words.length;
      await press('Enter');
    }
    await expect(page.getByRole('dialog')).toHaveCount(0);
  };
  // Twelve decisions of eight kinds: fingers, an octave, a touch, a texture, a hard measure, a word, a chord, dynamics.
  await press('3', 'ArrowRight', '2');
  await press('PageDown', '4');
  await press('PageDown', 'o', 'ArrowRight', '.');
  await press('PageDown', 'm');
  await decide('note to the student', 'count aloud');
  await press('PageDown', 't', 'PageDown', 't');
  await decide('dynamics mf');
  await press('PageDown', 's');
  await expect(page.getByRole('textbox', { name: 'Chords' })).toBeFocused();
  await page.keyboard.type('Am G');
  keys += 4;
  await press('Enter');
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await press('ArrowRight', '5');
  const count = page.getByRole('link', { name: /^\d+ choices$/ });
  await expect(count).toHaveText('12 choices');
  await press('Control+z', 'Control+z', 'Control+z');
  await expect(count).toHaveText('9 choices');
  await benchReady(page);
  await page.reload();
  await benchReady(page);
  await expect(count).toHaveText('9 choices');
  // In another key.
  await page.getByLabel(/^Key: /).click();
  await page.getByRole('option', { name: /^G major/ }).click();
  await expect(page.getByLabel(/^Key: G major/)).toBeVisible();
  keys += 3;
  await music.focus();
  // A phrase, slowly.
  for (let i = 0; i < 6; i++) await press('-');
  await press('l', ' ');
  await expect(page.locator('.sheet .note.sounding').first()).toBeVisible();
  await press(' ');
  await page.getByRole('button', { name: 'Mark as ready', exact: true }).click();
  keys += 1;
  await expect(page.getByRole('button', { name: /^Ready/ })).toBeVisible();
  const seconds = (Date.now() - began) / 1000;
  console.log(
    `from the file to the signature: ${keys} keys, the machine was waited for ${seconds.toFixed(0)} s`,
  );
  expect(keys / KEYS_A_MINUTE + seconds / 60).toBeLessThan(4);
});
