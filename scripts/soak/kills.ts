/**
 * The built server is killed at random moments while all kinds of things are written; after each start everything that was acknowledged
 * has to be there, the file whole, and nothing may refer to what is not there.
 */
import Database from 'better-sqlite3';
import { spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

const PORT = 5189;
const url = `http://127.0.0.1:${PORT}`;
const folder = mkdtempSync(join(tmpdir(), 'keypath-soak-'));

/** What the server has said is done. */
const done = {
  learners: new Set<string>(),
  lessons: new Set<string>(),
  pieces: new Set<string>(),
  fingers: 0,
};
const editNumbers = new Map<string, number>();
let acknowledged = 0;
const starts: number[] = [];

async function start(): Promise<ChildProcess> {
  const began = performance.now();
  const child = spawn('node', ['build'], {
    env: { ...process.env, PORT: String(PORT), KEYPATH_DATA: folder, KEYPATH_DEMO: '1' },
    stdio: ['ignore', 'ignore', 'inherit'],
  });
  while (!(await fetch(`${url}/robots.txt`).catch(() => undefined))) {
    if (child.exitCode !== null) throw new Error(`The server does not start any more: ${child.exitCode}`);
    await new Promise((resolve) => setTimeout(resolve, 30));
  }
  starts.push(performance.now() - began);
  return child;
}

const post = (
  path: string,
  fields: Record<string, string | File>,
): Promise<{ type: string; location?: string }> => {
  const body = new FormData();
  for (const [name, value] of Object.entries(fields)) body.append(name, value);
  return fetch(url + path, {
    method: 'POST',
    body,
    headers: { 'x-sveltekit-action': 'true', origin: url },
  }).then((answer) => answer.json() as Promise<{ type: string; location?: string }>);
};

let count = 0;
const random = <T>(list: readonly T[]): T => list[Math.floor(Math.random() * list.length)]!;
const learnersThere = (): string[] => [...done.learners];

/** One write of some kind; what it says is remembered only after it was acknowledged. */
async function write(versions: readonly string[]): Promise<void> {
  const name = `S${(count += 1)}`;
  const kind = random(['learner', 'lesson', 'piece', 'edit', 'edit', 'lesson', 'set'] as const);
  if (kind === 'learner' || learnersThere().length === 0) {
    const answer = await post('/learners/new', {
      name,
      level: '2',
      reachRight: '8',
      reachLeft: '8',
      keyboard: '61',
    });
    if (answer.type === 'redirect') done.learners.add(answer.location!.split('/').at(-1)!);
  } else if (kind === 'lesson') {
    const answer = await post(`/learners/${random(learnersThere())}?/lesson`, {
      date: '2026-03-01',
      note: name,
    });
    if (answer.type === 'success') done.lessons.add(name);
  } else if (kind === 'piece') {
    const file = new File([`X:1\nT:${name}\nM:4/4\nL:1/4\nK:C\nC D E F | G4 |]\n`], `${name}.abc`);
    const answer = await post('/pieces?/keep', { file, rights: 'own work' });
    if (answer.type === 'redirect') done.pieces.add(answer.location!.split('/').at(-1)!);
  } else if (kind === 'set') {
    await post(`/versions/${random(versions)}/levels?/set`, { level: '1' });
  } else {
    const version = random(versions);
    const now = (await (await fetch(`${url}/versions/${version}/edits`)).json()) as { edit: number };
    const finger = 1 + (count % 5);
    const answer = await fetch(`${url}/versions/${version}/edits`, {
      method: 'POST',
      headers: { 'content-type': 'application/json', origin: url },
      body: JSON.stringify({
        basedOn: now.edit,
        patches: [
          {
            op: 'add',
            path: ['decisions', `finger m${count % 3}n0`],
            value: { kind: 'finger', at: { note: `m${count % 3}n0` }, value: finger },
          },
        ],
      }),
    });
    const saved = (await answer.json()) as { edit: number; refused?: string };
    if (answer.ok && !saved.refused) {
      editNumbers.set(version, Math.max(saved.edit, editNumbers.get(version) ?? 0));
      done.fingers += 1;
    }
  }
  acknowledged += 1;
}

/** Looks at the file itself. Throws where something acknowledged is not there. */
function check(): void {
  const db = new Database(join(folder, 'keypath.db'));
  try {
    const whole = db.pragma('integrity_check', { simple: true });
    if (whole !== 'ok') throw new Error(`The file is damaged: ${String(whole)}`);
    if ((db.pragma('foreign_key_check') as unknown[]).length > 0)
      throw new Error('Something refers to nothing.');
    const all = (sql: string): Set<unknown> => new Set(db.prepare(sql).pluck().all());
    const [learners, lessons, pieces] = [
      all('select id from learner'),
      all('select note from lesson'),
      all('select id from piece'),
    ];
    for (const id of done.learners) if (!learners.has(id)) throw new Error(`The learner ${id} is lost.`);
    for (const note of done.lessons) if (!lessons.has(note)) throw new Error(`The lesson ${note} is lost.`);
    for (const id of done.pieces) if (!pieces.has(id)) throw new Error(`The piece ${id} is lost.`);
    for (const [version, edit] of editNumbers) {
      const row = db.prepare('select edit from version where id = ?').pluck().get(version) as number;
      const last = db
        .prepare('select max(number) from edit where version_id = ?')
        .pluck()
        .get(version) as number;
      if (row < edit || last !== row)
        throw new Error(`Edits of ${version} are lost: ${edit}, ${row}, ${last}.`);
    }
    const bare = db
      .prepare('select count(*) from version where id not in (select version_id from snapshot)')
      .pluck()
      .get();
    if (bare !== 0) throw new Error('A version is half made.');
  } finally {
    db.close();
  }
}

/** Kills it so many times. Throws where anything is lost; what was seen comes back in a sentence. */
export async function kills(count: number): Promise<string> {
  try {
    let child = await start();
    const studio = new Database(join(folder, 'keypath.db'), { readonly: true });
    const versions = studio.prepare('select id from version').pluck().all() as string[];
    studio.close();
    for (let kill = 1; kill <= count; kill++) {
      let isAlive = true;
      const writers = Array.from({ length: 4 }, async () => {
        while (isAlive)
          await write(versions).catch((error: unknown) => {
            // The server went in the middle: nothing was acknowledged.
            if (isAlive) throw error;
          });
      });
      await new Promise((resolve) => setTimeout(resolve, 100 + Math.random() * 1200));
      isAlive = false;
      const ended = new Promise((resolve) => child.once('exit', resolve));
      child.kill('SIGKILL');
      await ended;
      await Promise.allSettled(writers);
      check();
      child = await start();
      if (kill % 10 === 0) console.error(`${kill} of ${count} kills, ${acknowledged} writes acknowledged`);
    }
    const ended = new Promise((resolve) => child.once('exit', resolve));
    child.kill();
    await ended;
    check();
    starts.sort((a, b) => a - b);
    return `${count} kills during ${acknowledged} acknowledged writes: none lost, the file whole each time; started again in ${starts[starts.length >> 1]!.toFixed(0)} ms at the median, ${starts.at(-1)!.toFixed(0)} ms at most.`;
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}
