/** A lesson from Today to the week's page, what happens to it when the power goes, plans, weeks and classes. */
import { expect, test, type Page } from '@playwright/test';
import ICAL from 'ical.js';
import { spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { answers, expectAccessible, fillSegments, open, scripted } from './support';

/** Opens the lesson of a learner from Today, and waits until it can be given. */
async function openLesson(page: Page, name: string): Promise<void> {
  await open(page, '/');
  await page.getByRole('button', { name: `Start the lesson of ${name}` }).click();
  await page.waitForURL(/\/lessons\//);
  await lessonReady(page);
}

const lessonReady = (page: Page): Promise<void> =>
  expect(page.getByRole('list', { name: 'Steps' }).getByRole('listitem').first()).toBeVisible();

const saved = (page: Page): Promise<void> => expect(page.getByText('Saved', { exact: true })).toBeVisible();

/** Seconds of a hand, by the keystroke-level model: a key in a text, a key or a tap that is decided on, and a thought. */
const KEY = 0.28;
const ACT = 1.1;
const THOUGHT = 1.2;

test('six ticks, two grades, a note and the week set take less than a minute of her hands', async ({
  page,
}) => {
  let seconds = ACT; // Today: the lesson is opened.
  await openLesson(page, 'Teo');
  const press = async (key: string): Promise<void> => {
    seconds += ACT + THOUGHT;
    await page.keyboard.press(key);
  };
  for (const [i, grade] of ['3', '', '', '2', '', ''].entries()) {
    await press('Enter');
    await expect(page.locator('[aria-pressed=true][aria-label^="Uncheck"]').nth(i)).toBeVisible();
    if (grade) await press(grade);
  }
  const words = 'Thumb under sooner in the second line.';
  await press('n');
  await page.keyboard.type(words);
  seconds += words.length * KEY;
  await press('Escape');
  await press('w');
  await expect(page.getByRole('region', { name: 'Practice for the week' }).getByText('Saved.')).toBeVisible();
  await saved(page);
  await press('e');
  await page.waitForURL(/\/week$/);
  console.log(`a lesson: ${Math.round(seconds)} s of her hands`);
  expect(seconds).toBeLessThan(60);

  const done = page.getByRole('region', { name: 'Done in the lesson' }).getByRole('listitem');
  await expect(done).toHaveCount(6);
  await expect(done.filter({ hasText: /, well$/ })).toHaveCount(1);
  await expect(done.filter({ hasText: /, with help$/ })).toHaveCount(1);
  await expect(page.getByText(words)).toBeVisible();
  await expect(
    page
      .getByRole('region', { name: /Practice for the week/ })
      .getByRole('row')
      .nth(1),
  ).toBeVisible();
  await expectAccessible(page);
  // The next lesson opens with it.
  await page.getByRole('link', { name: 'Today', exact: true }).first().click();
  await expect(page.getByText(`Last time: ${words}`)).toBeVisible();
});

test('a lesson is heard, walked through, graded by taps, and what was ticked is taken back', async ({
  page,
}) => {
  await openLesson(page, 'Ottilie');
  await expect(page.locator('.sheet svg').first()).toBeVisible();
  await expectAccessible(page);
  // Another chunk, by key and by list; its music is drawn.
  const chunk = page.getByLabel('Chunk', { exact: true });
  const before = await chunk.inputValue();
  await page.keyboard.press(
    before === (await chunk.locator('option').first().getAttribute('value')) ? 'ArrowRight' : 'ArrowLeft',
  );
  await expect(chunk).not.toHaveValue(before);
  await expect(page.locator('.sheet svg').first()).toBeVisible();
  // A beat of 90 is tapped.
  const play = page.getByRole('button', { name: 'Play the current step' });
  await expect(play).toBeEnabled({ timeout: 20_000 });
  await play.click();
  await expect(page.getByRole('button', { name: 'Stop', exact: true })).toBeVisible();
  await page.keyboard.press(' ');
  await expect(play).toBeVisible();
  // With a grade a step is ticked; another grade takes its place; then all of it is taken back.
  const steps = page.getByRole('list', { name: 'Steps' });
  const last = steps.getByRole('listitem').last();
  await last.getByRole('button').last().click();
  await page.getByRole('button', { name: 'not yet' }).click();
  await expect(page.getByRole('button', { name: 'not yet' })).toHaveAttribute('aria-pressed', 'true');
  await page.getByRole('button', { name: 'with ease' }).click();
  await expect(page.getByRole('button', { name: 'with ease' })).toHaveAttribute('aria-pressed', 'true');
  await saved(page);
  await page.reload();
  await lessonReady(page);
  await page.goto(`${page.url().split('?')[0]}/week`);
  const done = page.getByRole('region', { name: 'Done in the lesson' }).getByRole('listitem');
  await expect(done).toHaveCount(1);
  await expect(done).toContainText('with ease');
});

test.describe('when the power goes', () => {
  const PORT = 5189;
  let folder: string;
  let server: ChildProcess | undefined;
  const url = `http://127.0.0.1:${PORT}`;
  async function serve(): Promise<void> {
    server = spawn('node', ['build'], {
      env: { ...process.env, PORT: String(PORT), KEYPATH_DATA: folder, KEYPATH_DEMO: '1' },
      stdio: 'ignore',
    });
    await answers(url);
  }
  const kill = (): void => void server?.kill('SIGKILL');
  test.beforeEach(() => {
    folder = mkdtempSync(join(tmpdir(), 'keypath-lesson-'));
  });
  test.afterEach(() => {
    kill();
    rmSync(folder, { recursive: true, force: true });
  });

  test('nothing of the lesson is lost, neither with the server nor with the tab', async ({ context }) => {
    test.setTimeout(300_000);
    await serve();
    const page = await context.newPage();
    await page.goto(url);
    await scripted(page);
    await page.getByRole('button', { name: 'Start the lesson of Runa' }).click();
    await lessonReady(page);
    await page.keyboard.press('Enter');
    await page.keyboard.press('4');
    await saved(page);
    const lesson = page.url().split('?')[0]!;
    kill();
    await page.keyboard.press('Enter');
    await page.keyboard.press('Enter');
    await page.keyboard.press('n');
    await page.keyboard.type('Written while the server was away.');
    await expect(page.getByText(/Offline: saved here/)).toBeVisible();
    // The tab goes as well, without being asked.
    await page.close();
    await serve();
    // Wherever the studio is opened next, what was kept is sent.
    const other = await context.newPage();
    await other.goto(url);
    await expect
      .poll(
        () =>
          other.evaluate(
            () => Object.keys(localStorage).filter((k) => k.startsWith('keypath lesson')).length,
          ),
        {
          timeout: 60_000,
        },
      )
      .toBe(0);
    await other.goto(`${lesson}/week`);
    await expect(other.getByRole('region', { name: 'Done in the lesson' }).getByRole('listitem')).toHaveCount(
      3,
    );
    await expect(other.getByRole('region', { name: 'Done in the lesson' })).toContainText('with ease');
    await expect(other.getByText('Written while the server was away.')).toBeVisible();
  });
});

test('a plan is split, renamed, given a step of one’s own, moved by keys and taken back; what was learned stays', async ({
  page,
}) => {
  await open(page, '/learners');
  await page.getByRole('link', { name: 'Jory', exact: true }).click();
  await page.getByRole('link', { name: 'Open the steps' }).click();
  const ticked = page.getByRole('button', { name: /^Uncheck/ });
  await expect(ticked.first()).toBeVisible();
  const before = await ticked.count();
  await page.getByRole('button', { name: 'Change the plan' }).click();
  const first = page.locator('li[aria-label*="pickup to measure"], li[aria-label*="measures"]').first();
  const name = (await first.getAttribute('aria-label'))!;
  await first.getByText('Name, measures and steps').click();
  await first.getByLabel('Name', { exact: true }).fill('The entrance');
  await first.getByRole('button', { name: 'Rename' }).click();
  const named = page.locator('li[aria-label^="The entrance"]');
  await expect(named).toHaveCount(1);
  await expect(page.getByText('with your changes')).toBeVisible();
  // Split inside a measure, and its second half has what it is joined to.
  await named.getByLabel('Split before beat').selectOption('2');
  await named.getByRole('button', { name: 'Split' }).click();
  await expect(named).toHaveAttribute('aria-label', /beat 1$/);
  await expect(page.getByRole('listitem', { name: /measure \d+ beat 2 to measure/ })).toHaveCount(1);
  await expect(page.locator(`li[aria-label="${name}"]`)).toHaveCount(0);
  // A step of one's own.
  await named.getByLabel('Add a step').selectOption('own');
  await named.getByLabel('Step name').fill('Clap the rhythm');
  await named.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(named.getByLabel('Name of the step Clap the rhythm')).toBeVisible();
  // Moved by the handle's keys.
  const handle = named.getByLabel(/^Move The entrance/);
  await handle.focus();
  await page.keyboard.press('Space');
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Space');
  await expect(
    page
      .locator('li[aria-label]')
      .filter({ has: page.getByText('Name, measures and steps') })
      .nth(1),
  ).toHaveAttribute('aria-label', /^The entrance/);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(
    page
      .locator('li[aria-label]')
      .filter({ has: page.getByText('Name, measures and steps') })
      .first(),
  ).toHaveAttribute('aria-label', /^The entrance/);
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Back to the steps' }).click();
  // Both halves have what the whole had.
  expect(await ticked.count()).toBeGreaterThan(before);
  await page.getByRole('button', { name: /^Check off: Clap the rhythm, The entrance/ }).click();
  await expect(page.getByRole('button', { name: /^Uncheck: Clap the rhythm/ })).toBeVisible();
});

/** Turns to the next week, and waits for it: until it is there the same names stand in this one. */
async function nextWeek(page: Page): Promise<void> {
  const here = page.url();
  await page.getByRole('link', { name: 'Next' }).click();
  await page.waitForURL((url) => url.href !== here);
}

test('a lesson is moved once, doubled, cancelled from then on; holidays; another program reads the calendar', async ({
  page,
}) => {
  await open(page, '/week');
  const lesson = page.getByRole('button', { name: /Halvard/ }).first();
  await nextWeek(page);
  await lesson.click();
  const panel = page.getByRole('region', { name: 'The lesson of Halvard' });
  const day = await panel.locator('input[name=toDay]').inputValue();
  await fillSegments(panel, 'at', '07:45');
  await panel.getByRole('button', { name: 'Move this lesson' }).click();
  await expect(page.getByRole('button', { name: /07:45 Halvard.*moved/ })).toBeVisible();
  await nextWeek(page);
  await expect(page.getByRole('button', { name: /11:00 Halvard/ })).toBeVisible();
  await page.getByRole('button', { name: /11:00 Halvard/ }).click();
  await panel.getByRole('button', { name: 'Double this lesson' }).click();
  await expect(page.getByRole('button', { name: /Halvard 60 min, double/ })).toBeVisible();
  await nextWeek(page);
  await page.getByRole('button', { name: /11:00 Halvard/ }).click();
  await panel
    .locator('form')
    .filter({ hasText: 'Cancel this lesson' })
    .getByRole('button', { name: 'This and all later ones' })
    .click();
  await expect(page.getByRole('button', { name: /Halvard/ })).toHaveCount(0);
  await expectAccessible(page);

  // As another library reads it.
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'Download calendar (.ics)' }).click(),
  ]);
  const calendar = new ICAL.Component(ICAL.parse(readFileSync((await download.path())!, 'utf8')) as string[]);
  const events = calendar.getAllSubcomponents('vevent').map((e) => new ICAL.Event(e));
  const his = events.filter(
    (e) => e.summary.includes('Halvard') && e.startDate.toJSDate().toISOString().slice(0, 10) >= day,
  );
  // Moved, doubled, and no more after that.
  expect(
    his.map((e) => (e.endDate.toJSDate().getTime() - e.startDate.toJSDate().getTime()) / 60_000),
  ).toEqual([30, 60]);
  expect(new Set(events.map((e) => e.uid)).size).toBe(events.length);
  expect(events.length).toBeGreaterThan(300);

  // A holiday takes the lessons of its days.
  await page
    .getByRole('navigation', { name: 'Weeks and months' })
    .getByRole('link', { name: 'Today' })
    .click();
  await page.getByRole('link', { name: 'Month view' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toContainText(/20\d\d/);
  const form = page.locator('form').filter({ hasText: 'Add holiday' });
  await form.getByLabel('Name').fill('Harbour days');
  await fillSegments(form, 'From', '2031-06-02');
  await fillSegments(form, 'to', '2031-06-08');
  await form.getByRole('button', { name: 'Add holiday' }).click();
  await expect(page.getByText(/Harbour days, 2 Jun to 8 Jun/)).toBeVisible();
  await open(page, '/week?day=2031-06-03');
  await expect(page.getByRole('button', { name: /Harbour days/ }).first()).toBeVisible();
});

test('a class: who is how far, what they can play together, parts for who has none', async ({ page }) => {
  await open(page, '/learners');
  await page.getByRole('link', { name: 'New class' }).click();
  await page.getByLabel('Name').fill('Two on Tuesday');
  await page.getByLabel('Piece').selectOption({ label: 'Slow Ferry' });
  await page.getByLabel('Kasimir').check();
  await page.getByLabel('Ilka').check();
  await page.getByRole('button', { name: 'Add' }).click();
  await expect(page.getByText('Ilka has no part yet', { exact: false })).toBeVisible();
  await page.getByRole('button', { name: /^Make (a part|parts) at/ }).click();
  await expect(page.getByRole('listitem', { name: 'Ilka' })).toContainText('level 3');
  await expect(page.getByRole('listitem', { name: 'Kasimir' })).toContainText('level 2');
  await expect(page.getByRole('region', { name: 'Together now' })).toContainText(/not ready: .*Ilka/);
  await expectAccessible(page);
});

test('students side by side are sorted, filtered and taken away; a month is told in plain words', async ({
  page,
}) => {
  await open(page, '/learners');
  await page.getByRole('radio', { name: 'Table' }).click();
  const names = page.getByRole('region', { name: 'Students table' }).locator('tbody tr td:first-child');
  await page.getByRole('button', { name: 'Student', exact: true }).click();
  const sorted = await names.allTextContents();
  expect(sorted).toEqual([...sorted].sort());
  await page.getByRole('button', { name: /^Student/ }).click();
  expect(await names.allTextContents()).toEqual([...sorted].sort().reverse());
  await page.getByRole('combobox', { name: /^Show/ }).selectOption('Stuck');
  await expect(names.filter({ hasText: 'Wren' })).toHaveCount(1);
  await expectAccessible(page);
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: /CSV/ }).click(),
  ]);
  const rows = readFileSync((await download.path())!, 'utf8').split('\r\n');
  expect(rows[0]).toMatch(/^student,lesson,level/);
  expect(rows.some((row) => row.startsWith('Wren,') && row.includes('stuck'))).toBe(true);

  await page.getByRole('link', { name: 'Wren', exact: true }).click();
  await page.getByRole('link', { name: 'Monthly report for parents' }).click();
  await page.getByRole('link', { name: 'Previous month' }).click();
  await expect(page.getByText(/\d lessons this month/)).toBeVisible();
  await expectAccessible(page);
});

test('on a phone nothing has to be scrolled sideways', async ({ browser }) => {
  const page = await browser.newPage({ viewport: { width: 390, height: 844 } });
  await open(page, '/learners');
  const learner = await page.getByRole('link', { name: 'Berit', exact: true }).getAttribute('href');
  await page.goto(learner!);
  const steps = await page.getByRole('link', { name: 'Open the steps' }).getAttribute('href');
  for (const path of [
    '/',
    '/learners',
    learner!,
    steps!,
    '/week',
    '/week?as=month',
    `${learner}/month`,
    '/pieces',
    '/classes/new',
  ]) {
    await open(page, path);
    expect(await page.evaluate(() => document.documentElement.scrollWidth), path).toBeLessThanOrEqual(390);
  }
  await page.close();
});
