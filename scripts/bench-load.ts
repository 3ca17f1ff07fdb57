/**
 * `npm run bench:load`: heavy work against the built server, each with what another page waits meanwhile, and the memory of the server
 * through all of it. With `--people N` also how many pages a second it serves to so many at once.
 */
import { spawn } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { writeMusicXml } from '../src/lib/core/io/musicxml/write';
import { scoreFrom } from '../src/lib/core/test/shorthand';
import { documentOf } from '../src/lib/core/version/document';
import { DEFAULT_RECIPE } from '../src/lib/core/version/recipe';
import { openDatabase } from '../src/lib/server/db/open';
import { fillDemoStudio } from '../src/lib/server/studio/demo/fill';
import { addPiece, listPieces } from '../src/lib/server/studio/pieces';
import { addVersion, listVersions } from '../src/lib/server/studio/versions';
import { times } from './benchMusic';
import { median, print, share, startServer, type Line } from './builtServer';

const PORT = 5192;
const bytesOf = (text: string): Uint8Array => new TextEncoder().encode(text);

/** Sixteenths against eighths with chords: so many notes in a measure of 4/4. */
const PER_MEASURE = 28;
const RIGHT = [
  'C5:0.25 D5:0.25 E5:0.25 F5:0.25 G5:0.25 A5:0.25 G5:0.25 F5:0.25 E5:0.25 F5:0.25 D5:0.25 E5:0.25 C5:0.25 D5:0.25 B4:0.25 C5:0.25',
];
const LEFT = ['C3:0.5 [E3 G3]:0.5 G2:0.5 [E3 G3]:0.5 F2:0.5 [C3 A3]:0.5 G2:0.5 [D3 B3]:0.5'];
const dense = (notes: number) => {
  const measures = Math.ceil(notes / PER_MEASURE);
  return scoreFrom({
    title: `${notes} notes`,
    key: 'C',
    time: { beats: 4, beatType: 4 },
    right: times(measures, RIGHT),
    left: times(measures, LEFT),
  });
};

/** A standard MIDI file of so many notes: chords of four, a sixteenth each. */
function midiOf(notes: number): Uint8Array {
  // Delta times below 128 ticks of 12 to a quarter: one byte each.
  const track: number[] = [0, 0xff, 0x51, 3, 3, 0xd0, 0x90];
  for (let i = 0; i < notes / 4; i++) {
    const chord = [48, 64, 67, 72].map((n) => n + (i % 5));
    for (const note of chord) track.push(0, 0x90, note, 80);
    chord.forEach((note, v) => track.push(v === 0 ? 3 : 0, 0x80, note, 0));
  }
  track.push(0, 0xff, 0x2f, 0);
  const big = (value: number, bytes: number): number[] =>
    Array.from({ length: bytes }, (_, i) => (value >> (8 * (bytes - 1 - i))) & 0xff);
  const ascii = (text: string): number[] => [...text].map((c) => c.charCodeAt(0));
  return Uint8Array.from(
    [
      ...ascii('MThd'),
      ...big(6, 4),
      ...big(0, 2),
      ...big(1, 2),
      ...big(12, 2),
      ...ascii('MTrk'),
      ...big(track.length, 4),
    ].concat(track),
  );
}

const folder = mkdtempSync(join(tmpdir(), 'keypath-load-'));
const db = openDatabase(folder, 'drizzle');
fillDemoStudio(db);
const demo =
  listVersions(db, listPieces(db)[0]!.id)[0]?.id ??
  addVersion(db, listPieces(db)[0]!.id, documentOf(DEFAULT_RECIPE));
const large = addPiece(db, {
  name: 'large.musicxml',
  bytes: bytesOf(writeMusicXml(dense(20_000))),
  rights: 'own work',
});
const largeVersion = addVersion(db, large, documentOf({ ...DEFAULT_RECIPE, level: 6 }));
db.$client.close();
const server = await startServer(folder, PORT);
const memory = (): number =>
  Number(/VmHWM:\s+(\d+)/.exec(readFileSync(`/proc/${server.pid}/status`, 'utf8'))![1]) / 1024;

async function upload(action: string, name: string, bytes: Uint8Array): Promise<string> {
  const body = new FormData();
  body.append('file', new File([new Uint8Array(bytes)], name));
  const answer = await fetch(`${server.url}/pieces?/${action}`, {
    method: 'POST',
    body,
    headers: { 'x-sveltekit-action': 'true', origin: server.url },
  });
  return (await answer.text()).slice(0, 160);
}

/** Seconds that something takes, and what other pages wait meanwhile at the worst and at the median, in milliseconds. */
async function timed(
  what: () => Promise<unknown>,
): Promise<{ seconds: number; waited: number; usual: number; said: unknown }> {
  let isDone = false;
  const waits: number[] = [];
  const others = (async () => {
    while (!isDone) {
      for (const page of ['/', '/learners', '/pieces', `/versions/${demo}`]) {
        if (isDone) break;
        const began = performance.now();
        await (await fetch(server.url + page)).text();
        waits.push(performance.now() - began);
        await new Promise((resolve) => setTimeout(resolve, 50));
      }
    }
  })();
  const began = performance.now();
  const said = await what();
  const seconds = (performance.now() - began) / 1000;
  isDone = true;
  await others;
  return { seconds, waited: Math.max(0, ...waits), usual: median(waits), said };
}

const lines: Line[] = [];
const measure = async (what: string, below: number, act: () => Promise<unknown>): Promise<void> => {
  const { seconds, waited, usual, said } = await timed(act);
  console.error(`${what}: ${String(said).replace(/\s+/g, ' ').slice(0, 150)} (${memory().toFixed(0)} MB)`);
  lines.push({ what, value: seconds * 1000, unit: 'ms', below: below * 1000 });
  lines.push({ what: '   another page waited at the worst', value: waited, unit: 'ms', below: 300 });
  lines.push({ what: '   and at the median', value: usual, unit: 'ms', below: 50 });
};
const get = (path: string) => async (): Promise<string> => {
  const answer = await fetch(server.url + path, { headers: { connection: 'close' } });
  return `${answer.status}, ${(await answer.arrayBuffer()).byteLength} bytes`;
};

try {
  // Everything has been asked for once.
  for (const page of ['/', '/learners', '/pieces', `/versions/${demo}`]) await get(page)();
  const xml = bytesOf(writeMusicXml(dense(100_000)));
  const { zipSync } = await import('fflate');
  const [packed, midi] = [zipSync({ 'score.xml': xml }), midiOf(100_000)];
  await measure('MusicXML of 100,000 notes, compressed: looked at', 3, () =>
    upload('look', 'large.mxl', packed),
  );
  await measure('MIDI of 100,000 notes: looked at', 5, () => upload('look', 'large.mid', midi));
  const many = bytesOf(`X:1\nT:Many measures\nM:2/4\nL:1/8\nK:G\n${'GABc dBAG|'.repeat(3700)}\n`);
  let kept = '';
  await measure(`ABC of ${Math.round(many.length / 1000)} kB with 3,700 measures: kept`, 5, async () => {
    const answer = await upload('keep', 'many.abc', many);
    kept = /\/pieces\/[\w-]+/.exec(answer)?.[0] ?? '';
    return answer;
  });
  await measure('   its page', 10, get(kept));
  let version = '';
  await measure('   a version of it on the bench', 30, async () => {
    const answer = await fetch(`${server.url}${kept}?/version`, {
      method: 'POST',
      body: new URLSearchParams({ level: '2' }),
      headers: { 'x-sveltekit-action': 'true', origin: server.url },
    });
    version = /\/versions\/[\w-]+/.exec(await answer.text())?.[0] ?? '';
    return get(version)();
  });
  const chart = bytesOf(`{title: Long}\n${'[C]la [G7]la [Am]la [F]la\n'.repeat(360_000)}`);
  await measure(`a chart of ${Math.round(chart.length / 1e6)} MB: looked at`, 5, () =>
    upload('look', 'long.pro', chart),
  );
  await measure('the calendar of the studio', 3, get('/week/calendar.ics'));
  await measure('a backup taken', 5, get('/settings/studio/copy'));
  for (const ending of ['musicxml', 'mxl', 'mid', 'abc', 'pro', 'txt'])
    await measure(`a piece of 20,000 notes as .${ending}`, 5, get(`/pieces/${large}/as/${ending}`));
  await measure('a version of 20,000 notes as .musicxml', 5, get(`/versions/${largeVersion}/as/musicxml`));
  await measure('the page of a version of 20,000 notes', 10, get(`/versions/${largeVersion}`));
  await measure('its handout, without a script', 10, get(`/versions/${largeVersion}/handout?whole=yes`));
  await measure('the page of a piece of 20,000 notes', 5, get(`/pieces/${large}`));
  const scale = join(folder, 'ten-thousand.musicxml');
  writeFileSync(scale, writeMusicXml(dense(10_000)));
  const began = performance.now();
  // Not synchronously: while this process stands still the server closes its sockets.
  const status = await new Promise<number | null>((done) =>
    spawn('./keypath', ['finger', scale, '-o', join(folder, 'out.musicxml')]).once('close', done),
  );
  lines.push({
    what: `finger of 10,000 notes (status ${status})`,
    value: performance.now() - began,
    unit: 'ms',
    below: 5000,
  });
  const people = Number(process.argv[process.argv.indexOf('--people') + 1]) || 20;
  const waits: number[] = [];
  const until = performance.now() + 10_000;
  await Promise.all(
    Array.from({ length: people }, async (_, i) => {
      const pages = ['/', '/learners', '/pieces', `/versions/${demo}`];
      for (let n = i; performance.now() < until; n++) {
        const began = performance.now();
        await get(pages[n % pages.length]!)();
        waits.push(performance.now() - began);
      }
    }),
  );
  console.error(
    `${people} people at once: ${(waits.length / 10).toFixed(0)} pages a second, median ${median(waits).toFixed(0)} ms, 95 of 100 within ${share(waits, 0.95).toFixed(0)} ms`,
  );
  lines.push({ what: 'memory of the server, at its highest', value: memory(), unit: 'MB', below: 600 });
  print(lines);
} finally {
  await server.stop();
  rmSync(folder, { recursive: true });
}
