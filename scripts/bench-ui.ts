/**
 * `npm run bench:ui`: what a teacher waits for on the bench, in Chromium against the built server, from marks in the page. A version
 * of 64 full measures; from the key or the click to the picture in the page.
 */
import { chromium, type Page } from '@playwright/test';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { writeMusicXml } from '../src/lib/core/io/musicxml/write';
import { documentOf } from '../src/lib/core/version/document';
import { LEVELS } from '../src/lib/core/arrange/levels';
import { realise } from '../src/lib/core/version/realise';
import { engrave } from '../src/lib/engrave/engrave';
import { sheetOf } from '../src/lib/engrave/sheet';
import { DEFAULT_RECIPE } from '../src/lib/core/version/recipe';
import { openDatabase } from '../src/lib/server/db/open';
import { addPiece } from '../src/lib/server/studio/pieces';
import { addVersion } from '../src/lib/server/studio/versions';
import { fullOf, throughComposed } from './benchMusic';
import { median, print, share, startServer, type Line } from './builtServer';
import { START } from '../src/lib/ui/sound/player';
import { CHROMIUM } from './chromium';

const PORT = 5194;
const PHRASES = 16;

/** Watches the page from its first moment: the first music, marks, and tasks that keep it from answering. */
function watch(): void {
  const seen = { music: 0, long: [] as number[], marks: [] as { name: string; at: number }[], acted: 0 };
  Object.assign(window, { seen });
  const look = (): void => {
    if (document.querySelector('.sheet svg .note')) seen.music = performance.now();
    else requestAnimationFrame(look);
  };
  look();
  new PerformanceObserver((list) => {
    for (const entry of list.getEntries()) seen.long.push(Math.round(entry.duration));
  }).observe({ type: 'longtask', buffered: true });
  new PerformanceObserver((list) => {
    for (const entry of list.getEntries()) seen.marks.push({ name: entry.name, at: entry.startTime });
  }).observe({ type: 'mark', buffered: true });
  for (const kind of ['keydown', 'pointerup'] as const)
    addEventListener(kind, () => (seen.acted = performance.now()), { capture: true });
}

interface Seen {
  readonly music: number;
  readonly long: number[];
  readonly marks: { readonly name: string; readonly at: number }[];
  readonly acted: number;
}
const seenIn = (page: Page): Promise<Seen> => page.evaluate(() => (window as unknown as { seen: Seen }).seen);

/** Milliseconds from an action to each picture that it brings, when no more come. */
async function picturesAfter(page: Page, act: () => Promise<void>, least = 1): Promise<number[]> {
  await page.evaluate(() => void ((window as unknown as { seen: Seen }).seen.marks.length = 0));
  await act();
  await page.waitForFunction(
    (count) =>
      (window as unknown as { seen: Seen }).seen.marks.filter((m) => m.name === 'picture').length >= count,
    least,
    { timeout: 20_000, polling: 20 },
  );
  // Until it is quiet: what is drawn behind the phrase in hand comes one by one.
  for (let before = -1, now = 0; before !== now;) {
    before = now;
    await page.waitForTimeout(350);
    now = (await seenIn(page)).marks.length;
  }
  const { marks, acted } = await seenIn(page);
  return marks.filter((m) => m.name === 'picture').map((m) => m.at - acted);
}

async function firstMusic(page: Page, url: string): Promise<number> {
  await page.goto(url, { waitUntil: 'commit' });
  await page.waitForFunction(() => (window as unknown as { seen?: Seen }).seen?.music, undefined, {
    timeout: 30_000,
    polling: 20,
  });
  return (await seenIn(page)).music;
}

const folder = mkdtempSync(join(tmpdir(), 'keypath-ui-'));
const db = openDatabase(folder, 'drizzle');
const [version, repeating] = [throughComposed(64), fullOf(64)].map((score) => {
  const bytes = new TextEncoder().encode(writeMusicXml({ ...score, title: 'Sixty-four measures' }));
  const piece = addPiece(db, { name: 'sixty-four.musicxml', bytes, rights: 'own work' });
  return addVersion(db, piece, documentOf({ ...DEFAULT_RECIPE, level: 4, reach: { right: 9, left: 9 } }));
}) as [string, string];
const server = await startServer(folder, PORT);
const browser = await chromium.launch(CHROMIUM);
try {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  // The compiler of this script names functions by a helper that the page does not have.
  await context.addInitScript('globalThis.__name = (named) => named');
  await context.addInitScript(watch);
  const page = await context.newPage();
  const bench = `${server.url}/versions/${version}`;
  const ready = async (): Promise<void> => {
    await page.waitForSelector('[aria-busy="false"]', { timeout: 30_000 });
    await page.waitForFunction((count) => document.querySelectorAll('.sheet svg').length >= count, PHRASES, {
      timeout: 30_000,
    });
  };
  /** For each change of level: from the click to its first picture, and to its last. */
  const levelTimes = async (): Promise<{ first: number; all: number }[]> => {
    const times: { first: number; all: number }[] = [];
    // Each level for the first time.
    for (const level of [2, 3, 5, 6]) {
      // Looking for the place in the list would be counted as a task of the page.
      const { long } = await seenIn(page);
      await page.getByLabel(/^Level: /).click();
      const option = page.getByRole('option', { name: new RegExp(`^${level} `) });
      const { x, y, width, height } = (await option.boundingBox())!;
      await page.evaluate((before) => void ((window as unknown as { seen: Seen }).seen.long = before), long);
      const after = await picturesAfter(page, () => page.mouse.click(x + width / 2, y + height / 2), 2);
      times.push({ first: after[0]!, all: after.at(-1)! });
    }
    return times;
  };
  // A warm server, and a browser that has been here before.
  await firstMusic(page, bench);
  await ready();
  const opened: number[] = [];
  const workable: number[] = [];
  for (let i = 0; i < 5; i++) {
    opened.push(await firstMusic(page, bench));
    await page.waitForSelector('[aria-busy="false"]', { timeout: 30_000 });
    workable.push((await seenIn(page)).marks.find((m) => m.name === 'version')?.at ?? NaN);
    await ready();
  }
  /** From the key to what is handed to the sound device, and from there to the first note. */
  const startOfSound = async (): Promise<number> => {
    await page.evaluate(() => void ((window as unknown as { seen: Seen }).seen.marks.length = 0));
    await page.keyboard.press(' ');
    await page.waitForFunction(
      () => (window as unknown as { seen: Seen }).seen.marks.some((m) => m.name === 'sound'),
      undefined,
      { timeout: 10_000, polling: 20 },
    );
    const { marks, acted } = await seenIn(page);
    return marks.find((m) => m.name === 'sound')!.at - acted + 1000 * START;
  };
  const firstSound = await startOfSound();
  await page.waitForTimeout(3000); // the recordings arrive
  const sounds: number[] = [];
  for (let i = 0; i < 5; i++) {
    await page.keyboard.press(' ');
    await page.waitForTimeout(300);
    sounds.push(await startOfSound());
  }
  // It goes on playing, round the phrase, under everything that follows.
  await page.keyboard.press(' ');
  await page.keyboard.press('l');
  await page.keyboard.press(' ');
  await page.evaluate(() => void ((window as unknown as { seen: Seen }).seen.long.length = 0));
  const fingers: number[] = [];
  for (let i = 0; i < 40; i++) {
    await page.keyboard.press('ArrowRight');
    await page.waitForTimeout(30);
    const finger = String(1 + ((i * 2) % 5));
    const [first] = await picturesAfter(page, () => page.keyboard.press(finger));
    if (first !== undefined) fingers.push(first);
  }
  const textures: number[] = [];
  for (let i = 0; i < 10; i++) {
    await page.keyboard.press('PageDown');
    const [first] = await picturesAfter(page, () => page.keyboard.press('t'));
    if (first !== undefined) textures.push(first);
  }
  const fresh = await levelTimes();
  const { long } = await seenIn(page);
  await firstMusic(page, `${server.url}/versions/${repeating}`);
  await ready();
  const again = await levelTimes();
  const levels = [
    await firstMusic(page, `${bench}/levels`),
    await firstMusic(page, `${bench}/levels?phrase=1`),
  ];
  const handouts = [
    await firstMusic(page, `${bench}/handout`),
    await firstMusic(page, `${bench}/handout?counts=no`),
  ];
  const html = await (await fetch(bench)).text();
  const made = realise(throughComposed(64), { ...DEFAULT_RECIPE, level: 4 }, [], LEVELS);
  const show = { width: 980, fingers: true, counts: true, chords: true };
  const pace: number[] = [];
  for (const phrase of made.form.phrases) {
    const sheet = sheetOf(made, phrase, show);
    const began = performance.now();
    await engrave(sheet);
    pace.push(performance.now() - began);
  }
  console.log(`One phrase takes the engraver ${median(pace).toFixed(0)} ms here and now.`);
  const lines: Line[] = [
    {
      what: 'pictures in the HTML of a version (at least one)',
      value: html.match(/class="sheet/g)?.length ? 1 : 0,
      unit: '',
      below: 2,
    },
    { what: 'opening a version: music seen', value: median(opened), unit: 'ms', below: 500 },
    { what: 'opening a version: workable', value: median(workable), unit: 'ms', below: 1500 },
    { what: 'a finger, to its picture: median', value: median(fingers), unit: 'ms', below: 60 },
    {
      what: 'a finger, to its picture: 95th percentile',
      value: share(fingers, 0.95),
      unit: 'ms',
      below: 120,
    },
    {
      what: 'a texture of a measure, to its picture: median',
      value: median(textures),
      unit: 'ms',
      below: 200,
    },
    {
      what: 'a level: first phrase, median',
      value: median(fresh.map((t) => t.first)),
      unit: 'ms',
      below: 250,
    },
    {
      what: 'a level: all of 64 measures, median',
      value: median(fresh.map((t) => t.all)),
      unit: 'ms',
      below: 800,
    },
    {
      what: 'the same where phrases come again, median',
      value: median(again.map((t) => t.all)),
      unit: 'ms',
      below: 800,
    },
    { what: 'longest task of the page while working', value: Math.max(0, ...long), unit: 'ms', below: 50 },
    { what: 'sound, from the key, the first time', value: firstSound, unit: 'ms', below: 100 },
    { what: 'sound, from the key, median', value: median(sounds), unit: 'ms', below: 100 },
    { what: 'levels side by side: first picture', value: Math.max(...levels), unit: 'ms', below: 700 },
    { what: 'handout: first picture', value: Math.max(...handouts), unit: 'ms', below: 700 },
  ];
  print(lines, median(pace));
} finally {
  await browser.close();
  await server.stop();
  rmSync(folder, { recursive: true });
}
