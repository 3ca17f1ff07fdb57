/** The microphone: takes that are rendered with the shipped piano, in a room with noise and out of tune, go into Chromium’s own. */
import { chromium, expect, test } from '@playwright/test';
import { unflatten } from 'devalue';
import { writeFileSync } from 'node:fs';
import type { RoomTask } from '../src/lib/core/lessons/room';
import { perform } from '../src/lib/core/performance/perform';
import { measureLength } from '../src/lib/core/score/metre';
import { TICKS_PER_QUARTER } from '../src/lib/core/score/ticks';
import { expectationOf } from '../src/lib/core/takes/expectation';
import { pretendToPlay } from '../src/lib/core/takes/pretendPlayer';
import type { Version } from '../src/lib/core/version/realise';
import { CHROMIUM } from '../scripts/chromium';
import { takeRenderer } from '../scripts/takeSound';
import { wavOf } from '../src/lib/ui/sound/wav';
import { withRoom } from './support';

/** Seconds of silence in which the page loads its sounds and begins to count. */
const LEAD = 5;

/** What a room’s page was sent. */
async function sentTo(get: (path: string) => Promise<string>, room: string) {
  const { nodes } = JSON.parse(await get(`${room}/__data.json`)) as { nodes: { data: unknown[] }[] };
  return unflatten(nodes.at(-1)!.data) as {
    tasks: RoomTask[];
    pieces: Record<string, { music: Pick<Version, 'score' | 'feel'> }>;
  };
}

test('the microphone hears a take: what was right, and the key that was not', async ({
  page,
  browser,
}, info) => {
  const { room } = await withRoom(page, 'Mika');
  const { tasks, pieces } = await sentTo(async (path) => (await page.request.get(path)).text(), room);
  const task = tasks.find((t) => t.hand === 'right')!;
  const { score, feel } = pieces[task.assignment]!.music;
  const { from, to, tempo } = task;
  const expectation = expectationOf(perform(score, feel), { from, to, hand: 'right', tempo });
  const { keystrokes } = pretendToPlay(expectation, { seed: 9, jitter: 0.02 });
  // One wrong key, a half step too high, in the middle.
  const wrong = Math.floor(keystrokes.length / 2);
  const countIn = (measureLength(score.measures[from]!.time) / TICKS_PER_QUARTER) * (60 / tempo);
  const render = await takeRenderer(browser);
  const samples = await render(
    keystrokes.map(({ midi, onset }, i) => ({
      midi: i === wrong ? midi + 1 : midi,
      onset: onset + countIn + LEAD,
      duration: (keystrokes[i + 1]?.onset ?? onset + 1) - onset,
      velocity: 80,
    })),
    { seed: 5, cents: 8, noise: 20, room: 0.3 },
  );
  const file = info.outputPath('take.wav');
  writeFileSync(
    file,
    wavOf({ getChannelData: () => samples, sampleRate: 22050, length: samples.length } as never),
  );
  const hearing = await chromium.launch({
    ...CHROMIUM,
    args: [
      ...CHROMIUM.args,
      '--use-fake-ui-for-media-stream',
      '--use-fake-device-for-media-stream',
      `--use-file-for-fake-audio-capture=${file}%noloop`,
    ],
  });
  const student = await hearing.newPage({ viewport: { width: 390, height: 844 } });
  await student.goto(new URL(room, page.url()).href);
  await student
    .getByRole('button', { name: /^Right hand, ♩|^Right hand,/ })
    .first()
    .click();
  await student.getByText('More', { exact: true }).click();
  await student.getByLabel('Listen to').selectOption('microphone');
  await student.getByRole('button', { name: 'I’ll play' }).click();
  await expect(student.getByRole('status').filter({ hasText: 'Listening to the microphone' })).toBeVisible({
    timeout: 60_000,
  });
  const heard = student.getByRole('region', { name: 'What was heard' });
  await expect(heard.getByRole('list', { name: 'Measures as heard' })).toBeVisible({ timeout: 60_000 });
  // It ends by itself, a moment after the last note.
  await expect(heard.getByRole('button', { name: 'Hear what you played' })).toBeVisible({ timeout: 120_000 });
  const measure = score.measures[expectation.notes[wrong]!.measure]!.number;
  await expect(heard.getByRole('status')).toContainText(
    new RegExp(`^Measure ${measure}: .+, not .+\\. Everything else was right`),
  );
  await hearing.close();
});
