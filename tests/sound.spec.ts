/** Hearing a version: it plays, the cursor follows, the tempo changes as it sounds; without a device it says so. */
import { readFileSync } from 'node:fs';
import { expect, test, type Page } from '@playwright/test';
import { readMidiEvents } from '../src/lib/core/io/midi/events';
import { benchReady, bring, expectAccessible, fromMenu, setLevel } from './support';

async function openBench(page: Page, title: string): Promise<void> {
  await bring(page, title);
  await page.getByRole('button', { name: 'Make a version' }).click();
  await benchReady(page);
}

test('plays from the note in hand and stops by one key, the cursor goes along', async ({ page }) => {
  await openBench(page, 'Heard Song');
  const music = page.getByRole('application', { name: /^Music of/ });
  await music.focus();
  await page.getByRole('checkbox', { name: 'Count-in' }).uncheck();
  await music.focus();
  await page.keyboard.press(' ');
  await expect(page.getByRole('button', { name: 'Stop' })).toBeVisible();
  await expect(page.locator('.sheet .note.sounding').first()).toBeVisible();
  const first = await page.locator('.sheet .note.sounding').first().getAttribute('data-id');
  await expect
    .poll(() => page.locator('.sheet .note.sounding').first().getAttribute('data-id'), { timeout: 8000 })
    .not.toBe(first);
  // Slower while it sounds.
  await page.keyboard.press('-');
  await expect(page.getByText(/, 95%/)).toBeVisible();
  await expectAccessible(page);
  await page.keyboard.press(' ');
  await expect(page.getByRole('button', { name: 'Play', exact: true })).toBeVisible();
  await expect(page.locator('.sheet .note.sounding')).toHaveCount(0);
});

test('a phrase goes round, a decision is taken while it sounds', async ({ page }) => {
  await openBench(page, 'Looped Song');
  await page.getByRole('checkbox', { name: 'Count-in' }).uncheck();
  await page.getByRole('slider', { name: /^Tempo/ }).fill('120');
  await page.getByRole('application', { name: /^Music of/ }).focus();
  await page.keyboard.press('l');
  await page.keyboard.press(' ');
  await expect(page.locator('.sheet .note.sounding').first()).toBeVisible();
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('4');
  await expect(page.getByText('Saved', { exact: true })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Stop' })).toBeVisible();
  // It comes back to its beginning: the first measure sounds, leaves, and sounds again.
  const sounds = (measure: string) => page.locator(`.sheet .note.sounding[data-id^="${measure}n"]`).first();
  await expect(sounds('m1')).toBeVisible({ timeout: 20_000 });
  await expect(sounds('m1')).toBeHidden({ timeout: 20_000 });
  await expect(sounds('m1')).toBeVisible({ timeout: 20_000 });
  await page.getByRole('button', { name: 'Stop' }).click();
});

test('another fingering is heard, and seen on the keys, before it is taken', async ({ page }) => {
  await openBench(page, 'Tried Song');
  await page.keyboard.press('ArrowRight');
  await page.getByRole('slider', { name: /^Tempo/ }).fill('30');
  const others = page.getByRole('button', { name: /^Listen to [1-5]/ });
  await expect(others.first()).toBeVisible({ timeout: 15_000 });
  const digits = /^Listen to ([1-5 ]+):/.exec((await others.first().getAttribute('aria-label'))!)![1]!.trim();
  await others.first().click();
  const keys = page.getByRole('img', { name: /The hand's shape/ });
  // The first note of the other way, in its finger.
  await expect(keys.locator('text').filter({ hasText: /^[1-5]$/ })).toHaveText([digits.split(' ')[0]!]);
  await expect(page.getByRole('button', { name: 'Play', exact: true })).toBeVisible({ timeout: 20_000 });
  await page.getByRole('application', { name: /^Music of/ }).focus();
  await page.keyboard.press('h');
  await expect(page.getByRole('button', { name: 'Stop' })).toBeVisible();
  await page.keyboard.press(' ');
  await expect(page.locator('.sheet .badge.decided')).toHaveCount(0);
});

test('without a sound device the cursor goes along, and it is said', async ({ page }) => {
  await page.addInitScript(() => {
    Object.assign(window, { AudioContext: undefined, webkitAudioContext: undefined });
  });
  await openBench(page, 'Silent Song');
  await page.getByRole('button', { name: 'Play', exact: true }).click();
  await expect(page.getByText(/^No sound/)).toBeVisible();
  await expect(page.locator('.sheet .note.sounding').first()).toBeVisible({ timeout: 10_000 });
  await page.getByRole('button', { name: 'Stop' }).click();
});

/** Onsets and pitches that a recording must have: every note of the version's own MIDI file, at its time. */
test('what is heard is what is written: onsets within 5 ms, right pitches', async ({ page }) => {
  await openBench(page, 'Recorded Song');
  // In the octave of the source, where a rise is told from what rings on.
  await setLevel(page, '3');
  await benchReady(page);
  await page.getByRole('checkbox', { name: 'Count-in' }).uncheck();
  await page.getByRole('radio', { name: 'right' }).click();
  const take = async (name: RegExp): Promise<Buffer> => {
    const download = page.waitForEvent('download', { timeout: 60_000 });
    await fromMenu(page, name);
    return readFileSync((await (await download).path())!);
  };
  const wav = await take(/^Recording/);
  const midi = readMidiEvents(new Uint8Array(await take(/^MIDI/)));
  const tempo = midi.tempos[0]!.tempo;
  const written = midi.notes
    .filter((n) => n.player === 0)
    .map((n) => ({ at: (n.at / midi.division) * (60 / tempo), midi: n.midi }));
  const rate = wav.readUInt32LE(24);
  const samples = new Float64Array((wav.length - 44) / 2).map((_, i) => wav.readInt16LE(44 + 2 * i));
  const onsets = [...new Set(written.map((n) => n.at))].sort((a, b) => a - b);
  expect(onsets.length).toBeGreaterThan(15);
  // A rise is found against what was before: the first note has nothing before it.
  for (const at of onsets.slice(1)) {
    const found = onsetNear(samples, rate, at);
    expect(Math.abs(found - at), `onset at ${at.toFixed(3)}`).toBeLessThan(0.005);
    for (const { midi: key } of written.filter((n) => n.at === at)) {
      const own = strength(samples, rate, at + 0.05, key);
      for (const other of [key - 1, key + 1])
        expect(own, `${key} at ${at.toFixed(3)}`).toBeGreaterThan(
          2 * strength(samples, rate, at + 0.05, other),
        );
    }
  }
});

/** Where the sound begins to rise near a time, in seconds: the steepest step of the energy in windows of a millisecond. */
function onsetNear(samples: Float64Array, rate: number, at: number): number {
  const window = Math.round(rate / 1000);
  const energy = (from: number): number => {
    let sum = 0;
    for (let i = Math.max(0, from); i < from + window && i < samples.length; i++) {
      const step = samples[i]! - (samples[i - 1] ?? 0);
      sum += step * step;
    }
    return sum;
  };
  let best = { at, rise: 0 };
  for (let ms = -20; ms <= 20; ms++) {
    const from = Math.round((at + ms / 1000) * rate);
    const rise = energy(from) / (energy(from - window) + energy(from - 2 * window) + 1e4);
    if (rise > best.rise) best = { at: from / rate, rise };
  }
  return best.at;
}

/** How strongly a key's first partials sound in a tenth of a second. */
function strength(samples: Float64Array, rate: number, at: number, midi: number): number {
  const length = Math.round(rate / 5);
  const from = Math.round(at * rate);
  let sum = 0;
  for (const partial of [1, 2, 3]) {
    const omega = (2 * Math.PI * partial * 440 * 2 ** ((midi - 69) / 12)) / rate;
    let [re, im] = [0, 0];
    for (let i = 0; i < length; i++) {
      const shape = 0.5 - 0.5 * Math.cos((2 * Math.PI * i) / length);
      re += shape * samples[from + i]! * Math.cos(omega * i);
      im += shape * samples[from + i]! * Math.sin(omega * i);
    }
    sum += Math.hypot(re, im);
  }
  return sum;
}
