import AxeBuilder from '@axe-core/playwright';
import { expect, type Locator, type Page } from '@playwright/test';
import { writeMusicXml } from '../src/lib/core/io/musicxml/write';
import { scoreFrom } from '../src/lib/core/test/shorthand';

/** A two-staff file as a teacher would bring it, under a name of its own, so that tests do not meet. */
export function pianoFile(title: string): { name: string; mimeType: string; buffer: Buffer } {
  const score = scoreFrom({
    title,
    key: 'E',
    time: { beats: 4, beatType: 4 },
    tempo: 96,
    pickup: 1,
    right:
      'B4:1 | E5:1.5 F#5:0.5 G#5:1 E5:1 | [D#5 F#5]:0.75 E5:0.25 F#5:1 B4:2 | C#5:1 D#5:1 E5:1 C#5:1 | B4:3 B4:1 | ' +
      'E5:1 G#5:1 B5:1 A5:1 | G#5:2 F#5:2 | E5:1 D#5:1 C#5:1 D#5:1 | E5:4',
    left:
      'r:1 | E3:1 [G#3 B3]:1 E3:1 [G#3 B3]:1 | B2:1 [F#3 A3]:1 B2:1 [F#3 A3]:1 | A2:1 [E3 C#4]:1 A2:1 [E3 C#4]:1 | ' +
      '[B2 F#3 A3]:4 | E3:1 [G#3 B3]:1 A2:1 [E3 C#4]:1 | E3:2 [B2 F#3]:2 | A2:2 [B2 F#3 A3]:2 | [E2 B2 E3]:4',
  });
  return {
    name: `${title}.musicxml`,
    mimeType: 'application/xml',
    buffer: Buffer.from(writeMusicXml(score)),
  };
}

/** Goes to a page, and waits until what works by script on it does. */
export async function open(page: Page, path: string): Promise<void> {
  await page.goto(path);
  await scripted(page);
}

/** The page's script has taken over. */
export const scripted = (page: Page): Promise<void> =>
  expect(page.locator('html[data-ready]')).toHaveCount(1);

/** Brings a piece through the page, and lands on it. */
export async function bring(page: Page, title: string): Promise<void> {
  await open(page, '/pieces');
  await page.locator('input[type=file]').setInputFiles(pianoFile(title));
  await page.getByRole('button', { name: 'Save this piece' }).click();
  await expect(page.getByRole('heading', { level: 1, name: title })).toBeVisible();
}

/** The bench is ready when its version is made, its first phrase is drawn and everything is saved. */
export async function benchReady(page: Page): Promise<void> {
  await expect(page.locator('.sheet svg').first()).toBeVisible({ timeout: 30_000 });
  await expect(page.getByRole('application', { name: /^Music of/ })).toHaveAttribute('aria-busy', 'false', {
    timeout: 30_000,
  });
  await expect(page.getByText('Saved', { exact: true })).toBeVisible();
}

/**
 * No accessibility fault that axe can find. Inside an engraved picture, which is one image to a screen reader, there is
 * nothing for it to judge but thousands of strokes: it is left out, its frame and name are not.
 */
export async function expectAccessible(page: Page): Promise<void> {
  const { violations } = await new AxeBuilder({ page }).exclude('.sheet svg').analyze();
  expect(violations.map((v) => `${v.id}: ${v.nodes.map((n) => n.target.join(' ')).join(', ')}`)).toEqual([]);
}

/** Sets the level of the version on the bench by the first word of its sentence. */
export async function setLevel(page: Page, level: string): Promise<void> {
  await page.getByLabel(/^Level: /).click();
  await page
    .getByRole('listbox')
    .getByRole('option', { name: new RegExp(`^${level} `) })
    .click();
}

/** Chooses from the menu of the bench: a page, a file or something to do. */
export async function fromMenu(page: Page, name: string | RegExp): Promise<void> {
  await page.getByRole('button', { name: 'More', exact: true }).click();
  await page.getByRole('menuitem', { name }).click();
}

/** Every page of a handout is there: as many as the page says. */
export async function allPages(page: Page): Promise<number> {
  const says = page.getByText(/(^|, )\d+ pages?$/);
  await expect
    .poll(async () => {
      const count = Number(/(\d+) pages?$/.exec((await says.textContent()) ?? '')?.[1]);
      return count === (await page.locator('.page-of-paper svg.page').count());
    })
    .toBe(true);
  return page.locator('.page-of-paper svg.page').count();
}

/** Types a day ("2031-06-02") or a time ("07:45") into a field of segments, as an English studio has them: day, month, year. */
export async function fillSegments(of: Page | Locator, label: string, value: string): Promise<void> {
  const segments = of.getByRole('group', { name: label, exact: true }).getByRole('spinbutton');
  const parts = value.includes(':') ? value.split(':') : value.split('-').reverse();
  for (const [i, part] of parts.entries()) {
    await segments.nth(i).click();
    await segments.nth(i).pressSequentially(part);
  }
}

/** Waits until a server answers, as long as for that of all tests: on a busy machine its engraver takes a minute. */
export async function answers(url: string): Promise<void> {
  await expect
    .poll(
      () =>
        fetch(`${url}/robots.txt`).then(
          (r) => r.status,
          () => 0,
        ),
      { timeout: 150_000 },
    )
    .not.toBe(0);
}

/** A student with a piece and a link; the room's path comes back. */
export async function withRoom(
  page: Page,
  wanted: string,
): Promise<{ room: string; student: string; name: string }> {
  // A test that is tried again finds who came of the first try.
  await page.goto('/learners');
  const before = await page.getByRole('link', { name: new RegExp(`^${wanted}( \\d+)?$`) }).count();
  const name = before === 0 ? wanted : `${wanted} ${before + 1}`;
  await bring(page, `${name}’s Song`);
  await page.getByRole('button', { name: 'Make a version' }).click();
  await benchReady(page);
  await fromMenu(page, 'Assign to a student');
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel(/Or add a student|first student’s name/).fill(name);
  await dialog.getByRole('button', { name: 'Add and assign' }).click();
  await expect(page.getByText(`Assigned to ${name}.`)).toBeVisible();
  await page.goto('/learners');
  const path = await page.getByRole('link', { name, exact: true }).first().getAttribute('href');
  const student = path!.split('/').at(-1)!;
  await page.goto(`/learners/${student}/room`);
  await page.getByRole('button', { name: 'Create the link' }).click();
  const room = await page.locator('a[href^="/room/"]').getAttribute('href');
  return { room: room!, student, name };
}

/** In a practice room: done with listening, on to the next step, and the pretend player begins it. What is heard of it comes back. */
export async function firstTake(page: Page): Promise<Locator> {
  await page.getByRole('button', { name: 'I did it' }).click();
  await page.getByRole('button', { name: 'Next step' }).click();
  await expect(page.locator('.music svg').first()).toBeVisible();
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Faster' }).click();
  await page.getByRole('button', { name: 'I’ll play' }).click();
  await page.getByRole('button', { name: 'Let the pretend player play' }).click();
  const heard = page.getByRole('region', { name: 'What was heard' });
  await expect(heard.getByRole('list', { name: 'Measures as heard' })).toBeVisible({ timeout: 20_000 });
  return heard;
}
