/** The practice room: from its link to the record; a PIN; a link that is withdrawn; without a network; strangers. */
import { expect, test } from '@playwright/test';
import { expectAccessible, firstTake, withRoom } from './support';

test('a student practises by the link, is heard, and the record has it', async ({ page }) => {
  const { room, student } = await withRoom(page, 'Runhild');
  await expect(page.locator('[data-test=qr] svg')).toBeVisible();
  await expectAccessible(page);
  await page.setViewportSize({ width: 390, height: 844 });
  await page.goto(`${room}?keyboard=simulated`);
  await expect(page.getByText(/^Today: \d steps?, about \d+ minutes\.$/)).toBeVisible();
  await expectAccessible(page);
  // Listening needs no ear: it is done by the student's own word.
  await page
    .getByRole('button', { name: /^Listen/ })
    .first()
    .click();
  const heard = await firstTake(page);
  await page.getByRole('button', { name: 'Done', exact: true }).click();
  await expect(heard.getByRole('status')).not.toHaveText('Listening…');
  // One proposal, and what was played beside how it goes.
  await expect(heard.getByRole('button')).not.toHaveCount(0);
  await heard.getByRole('button', { name: 'Hear what you played' }).click();
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Today' }).click();
  await expect(page.getByRole('button', { name: /^Listen.*done/ })).toBeVisible();
  // On a wider screen, or a turned one, the music is drawn anew where it stands.
  await page
    .getByRole('button', { name: /^Listen.*done/ })
    .first()
    .click();
  const widthOfMusic = async (): Promise<number> =>
    Number((await page.locator('.music svg').first().getAttribute('viewBox'))?.split(' ')[2]);
  const onPhone = await widthOfMusic();
  await page.setViewportSize({ width: 1280, height: 800 });
  await expect.poll(widthOfMusic).toBeGreaterThan(onPhone * 1.2);
  // The teacher sees what was heard, and who did what.
  await page.goto(`/learners/${student}`);
  await expect(page.getByRole('heading', { name: 'As heard' })).toBeVisible();
});

test('a PIN is asked for, a withdrawn link leads nowhere, and strangers’ links show nothing', async ({
  page,
  request,
}) => {
  const { room, student } = await withRoom(page, 'Piotr');
  await page.getByLabel(/^PIN/).fill('12');
  await page.getByRole('button', { name: 'Set a PIN' }).click();
  await expect(page.getByRole('alert')).toContainText('4 to 8 digits');
  await page.getByLabel(/^PIN/).fill('4711');
  await page.getByRole('button', { name: 'Set a PIN' }).click();
  await expect(page.getByRole('status').first()).toContainText('The PIN is set.');
  await page.goto(room);
  await expect(page.getByText('Piotr')).toHaveCount(0);
  await page.getByLabel('PIN').fill('0000');
  await page.getByRole('button', { name: 'Open' }).click();
  await expect(page.getByRole('alert')).toContainText('isn’t right');
  await page.getByLabel('PIN').fill('4711');
  await page.getByRole('button', { name: 'Open' }).click();
  await expect(page.getByText(/^Today:/)).toBeVisible();
  // Without the PIN nothing is taken, and nothing of others at all.
  const told = { kind: 'practice', token: 'a-token-of-twenty-1', seconds: 30 };
  const origin = { origin: new URL(page.url()).origin };
  expect((await request.post(`${room}/record`, { data: told, headers: origin })).status()).toBe(403);
  expect((await page.request.post(`${room}/record`, { data: told, headers: origin })).status()).toBe(200);
  const stranger = await page.request.post(`${room}/record`, {
    data: {
      kind: 'event',
      token: 'a-token-of-twenty-2',
      assignment: 'not-theirs',
      chunk: 'm0..m1',
      step: 'hear',
      tempo: null,
      grade: null,
      by: 'learner',
    },
    headers: origin,
  });
  expect(stranger.status()).toBe(404);
  await page.goto(`/learners/${student}/room`);
  await page.getByRole('button', { name: 'Withdraw the link' }).click();
  await expect(page.getByRole('status').first()).toContainText('no longer works');
  expect((await request.get(room)).status()).toBe(404);
  expect((await request.get('/room/AAAAAAAAAAAAAAAAAAAAAA')).status()).toBe(404);
});

test('the room opens without a network once it was opened, and sends what was done when it is back, once', async ({
  page,
  context,
}) => {
  const { room, student } = await withRoom(page, 'Odile');
  await page.goto(room);
  await expect(page.getByText(/^Today:/)).toBeVisible();
  await page.evaluate(() => navigator.serviceWorker.ready.then(() => undefined));
  // The worker has the page once it has kept what was loaded before it.
  await expect
    .poll(() => page.evaluate(async (path) => (await caches.match(path)) !== undefined, room))
    .toBe(true);
  await page.reload();
  await expect(page.getByText(/^Today:/)).toBeVisible();
  await context.setOffline(true);
  await page.reload();
  await expect(page.getByText(/^Today:/)).toBeVisible();
  await page
    .getByRole('button', { name: /^Listen/ })
    .first()
    .click();
  await page.getByRole('button', { name: 'I did it' }).click();
  await expect(page.getByRole('status').first()).toContainText('Offline: saved here');
  // It outlives the tab.
  await page.reload();
  await expect(page.getByText(/^Today:/)).toBeVisible();
  await context.setOffline(false);
  await expect(page.getByRole('status').first()).not.toContainText('Offline', { timeout: 15_000 });
  // Done, however it is asked: what waits counts, and it arrives once.
  await expect(page.getByRole('button', { name: /^Listen.*done/ }).first()).toBeVisible();
  const told = async (): Promise<number> =>
    (
      (await (await page.request.get(`/learners/${student}/export?as=json`)).text()).match(
        /"step":\s*"hear"/g,
      ) ?? []
    ).length;
  await expect.poll(told, { timeout: 20_000 }).toBe(1);
  await page.reload();
  await expect(page.getByRole('button', { name: /^Listen.*done/ }).first()).toBeVisible();
  expect(await told()).toBe(1);
});
