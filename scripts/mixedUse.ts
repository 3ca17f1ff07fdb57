/** People who use a studio at once, each doing one thing after another of everything there is: for memory, and for whoever waits. */
import Database from 'better-sqlite3';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { share, type Running } from './builtServer';

/** A number between 0 and 1 from a seed, the same at every run. */
export function seeded(seed: number): () => number {
  let state = seed;
  return () => {
    state = (state * 1_103_515_245 + 12_345) % 2_147_483_648;
    return state / 2_147_483_648;
  };
}

export interface Sample {
  readonly second: number;
  /** Resident, in megabytes. */
  readonly megabytes: number;
}

export interface Mixed {
  readonly samples: readonly Sample[];
  /** Milliseconds of each answer. */
  readonly waits: readonly number[];
  /** What was answered with 500 or more. */
  readonly faults: readonly string[];
  readonly done: number;
}

const residentOf = (pid: number): number =>
  Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))![1]) / 1024;

/** Ids of what there is in a data folder. */
function thingsIn(folder: string) {
  const db = new Database(join(folder, 'keypath.db'), { readonly: true });
  const ids = (table: string): string[] => db.prepare(`select id from ${table}`).pluck().all() as string[];
  const things = {
    pieces: ids('piece'),
    versions: ids('version'),
    learners: ids('learner'),
    lessons: ids('lesson').slice(0, 40),
    assignments: ids('assignment'),
  };
  db.close();
  return things;
}

/** Lets so many people work for so many seconds. */
export async function mixedUse(
  server: Running,
  folder: string,
  {
    people,
    seconds,
    seed = 11,
  }: { readonly people: number; readonly seconds: number; readonly seed?: number },
): Promise<Mixed> {
  const things = thingsIn(folder);
  const { url } = server;
  const waits: number[] = [];
  const faults: string[] = [];
  const samples: Sample[] = [];
  const began = performance.now();
  const elapsed = (): number => (performance.now() - began) / 1000;
  const post = (path: string, body: FormData | URLSearchParams): Promise<Response> =>
    fetch(url + path, { method: 'POST', body, headers: { 'x-sveltekit-action': 'true', origin: url } });

  const person = async (number: number): Promise<void> => {
    const random = seeded(seed + number);
    const of = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!;
    const get = (path: string) => (): Promise<Response> => fetch(url + path);
    let count = 0;
    const acts: readonly (() => Promise<Response>)[] = [
      () => get(of(['/', '/learners', '/pieces', '/week', '/settings/levels', '/settings/studio']))(),
      () => get(`/learners/${of(things.learners)}${of(['', '/month', '/export'])}`)(),
      () => get(`/pieces/${of(things.pieces)}${of(['', '', '/keys', '/twelve', '/source', '/score'])}`)(),
      () => get(`/versions/${of(things.versions)}`)(),
      () =>
        get(
          `/versions/${of(things.versions)}${of(['/levels', '/history', '/decisions', '/compare', '/keys'])}`,
        )(),
      () => get(`/versions/${of(things.versions)}/handout${of(['', '/pdf', '/pages?from=0&to=4'])}`)(),
      () => get(`/versions/${of(things.versions)}/as/${of(['musicxml', 'mid', 'abc', 'pro'])}`)(),
      () => get(`/lessons/${of(things.lessons)}${of(['', '/week', '/line'])}`)(),
      () => get(`/assignments/${of(things.assignments)}`)(),
      () => get('/week/calendar.ics')(),
      () => {
        const file = new FormData();
        const name = `Mixed ${number} ${(count += 1)}`;
        const music = Array.from({ length: 32 }, () => of(['CDEF', 'G2E2', 'c2BA', 'GFED'])).join('|');
        file.append('file', new File([`X:1\nT:${name}\nM:4/4\nL:1/4\nK:C\n${music}|]\n`], `${name}.abc`));
        return post(`/pieces?/${of(['look', 'look', 'keep'])}`, file);
      },
      () =>
        post(
          `/pieces/${of(things.pieces)}?/version`,
          new URLSearchParams({ level: String(1 + Math.floor(random() * 6)) }),
        ),
      async () => {
        const version = of(things.versions);
        const now = (await (await fetch(`${url}/versions/${version}/edits`)).json()) as { edit: number };
        const note = `m${Math.floor(random() * 8)}n0`;
        const value = { kind: 'finger', at: { note }, value: 1 + Math.floor(random() * 5) };
        return fetch(`${url}/versions/${version}/edits`, {
          method: 'POST',
          headers: { 'content-type': 'application/json', origin: url },
          body: JSON.stringify({
            basedOn: now.edit,
            patches: [{ op: 'add', path: ['decisions', `finger ${note}`], value }],
          }),
        });
      },
    ];
    while (elapsed() < seconds) {
      const act = of(acts);
      const start = performance.now();
      const answer = await act();
      await answer.arrayBuffer();
      waits.push(performance.now() - start);
      if (answer.status >= 500) faults.push(`${answer.url} answered ${answer.status}`);
      // As long as somebody looks at what came.
      await new Promise((resolve) => setTimeout(resolve, 150 + 500 * random()));
    }
  };
  const watching = setInterval(
    () => samples.push({ second: elapsed(), megabytes: residentOf(server.pid) }),
    1000,
  );
  await Promise.all(Array.from({ length: people }, (_, i) => person(i)));
  clearInterval(watching);
  return { samples, waits, faults, done: waits.length };
}

/** The usual memory between two moments, in megabytes. */
export const memoryBetween = (samples: readonly Sample[], from: number, to: number): number =>
  share(
    samples.filter((s) => s.second >= from && s.second < to).map((s) => s.megabytes),
    0.5,
  );
