/**
 * `npm run soak [KILLS [SECONDS | none]]`: what must hold over time, against the built server. Kills in the middle of writing; two windows; a backup
 * given back; small files that are much work; the clock an hour back; and the memory of six people who mix everything. With `none`, kills alone.
 */
import Database from 'better-sqlite3';
import { mkdtempSync, rmSync } from 'node:fs';
import { loadavg, tmpdir } from 'node:os';
import { join } from 'node:path';
import { openDatabase } from '../src/lib/server/db/open';
import { fillDemoStudio } from '../src/lib/server/studio/demo/fill';
import { print, share, startServer, type Line } from './builtServer';
import { memoryBetween, mixedUse } from './mixedUse';
import { clock } from './soak/clock';
import { heavy } from './soak/heavy';
import { kills } from './soak/kills';
import { restoring } from './soak/restoring';
import { windows } from './soak/windows';

const KILLS = Number(process.argv[2] ?? 100);
const isKillsAlone = process.argv[3] === 'none';
const SECONDS = isKillsAlone ? 0 : Number(process.argv[3] ?? 300);
const PORT = 5199;
/** Seconds until everything has been used once: memory is compared from then on. */
const WARM = 120;

const folder = mkdtempSync(join(tmpdir(), 'keypath-soak-'));
const filled = openDatabase(folder, 'drizzle');
fillDemoStudio(filled);
filled.$client.close();
const idOf = (sql: string): string => {
  const db = new Database(join(folder, 'keypath.db'), { readonly: true });
  try {
    return db.prepare(sql).pluck().get() as string;
  } finally {
    db.close();
  }
};
const [learner, version, piece, assignment, lesson] = [
  'select id from learner order by name',
  'select id from version order by created_at, id',
  'select id from piece order by title',
  'select id from assignment order by id',
  'select id from lesson order by date desc, id',
].map(idOf) as [string, string, string, string, string];

console.log(`load ${loadavg()[0]!.toFixed(1)}`);
if (KILLS > 0) console.log(await kills(KILLS));
const lines: Line[] = [];
/** Everything but kills and memory, on one server whose clock can be set back. */
async function together(): Promise<void> {
  const shift = `--import ${new URL('./soak/shiftClock.mjs', import.meta.url).href}`;
  const server = await startServer(folder, PORT, { NODE_OPTIONS: shift });
  try {
    console.log(await windows(server.url, lesson, version));
    const views = [
      ...['/', '/learners', '/pieces', '/week', '/week?as=month', '/settings/levels', '/settings/hand'],
      ...['', '/month'].map((end) => `/learners/${learner}${end}`),
      ...['', '/keys', '/twelve', '/score', '/source'].map((end) => `/pieces/${piece}${end}`),
      ...['', '/edits', '/history', '/decisions', '/levels', '/keys', '/handout', '/as/abc'].map(
        (end) => `/versions/${version}${end}`,
      ),
      `/assignments/${assignment}`,
      `/lessons/${lesson}/week`,
      '/week/calendar.ics',
    ];
    console.log(await restoring(server.url, views, version));
    lines.push(...(await heavy(server.url, ['/', '/learners', `/versions/${version}`, `/pieces/${piece}`])));
    console.log(await clock(server.url, () => process.kill(server.pid, 'SIGUSR2'), { learner, version }));
  } finally {
    await server.stop();
  }
}

try {
  if (!isKillsAlone) await together();
  if (SECONDS > 0) {
    const mixing = await startServer(folder, PORT);
    try {
      const { samples, waits, faults, done } = await mixedUse(mixing, folder, {
        people: 6,
        seconds: SECONDS,
      });
      if (faults.length > 0) throw new Error(`Answered with a fault: ${[...new Set(faults)].join('; ')}`);
      const half = (WARM + SECONDS) / 2;
      console.log(
        `six people, ${done} requests in ${SECONDS} s: median ${share(waits, 0.5).toFixed(0)} ms, 95 of 100 within ${share(waits, 0.95).toFixed(0)} ms.`,
      );
      lines.push(
        {
          what: 'memory at its highest',
          value: Math.max(...samples.map((s) => s.megabytes)),
          unit: 'MB',
          below: 500,
        },
        {
          what: 'memory in the second minute',
          value: memoryBetween(samples, 60, WARM),
          unit: 'MB',
          below: 500,
        },
        {
          what: 'growth from then to the end',
          value: memoryBetween(samples, SECONDS - 60, SECONDS) - memoryBetween(samples, WARM - 30, WARM + 30),
          unit: 'MB',
          below: 10,
        },
        {
          what: 'growth of its second half alone',
          value: memoryBetween(samples, half, SECONDS) - memoryBetween(samples, WARM, half),
          unit: 'MB',
          below: 10,
        },
      );
    } finally {
      await mixing.stop();
    }
  }
} finally {
  rmSync(folder, { recursive: true, force: true });
}
print(lines);
