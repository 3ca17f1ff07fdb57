/** A thread of the pool. It has its own connection to the studio's database, which it only reads. */
import { keepResults } from '$core/pipeline/memo';
import { keepPictures } from '$lib/engrave/engrave';
import { listening } from '$core/pipeline/progress';
import { constants, platform, setPriority } from 'node:os';
import { parentPort } from 'node:worker_threads';
import { workerData } from 'piscina';
import { nameNotesAs } from '$core/theory/noteNames';
import { openToRead } from '../db/open';
import { localeOf } from '../studio/locale';
import { answerOf, type Answer, type JobName } from './work';

/** Pictures that are kept as templates: of many people's pieces the last. */
const PICTURES = 80;

export interface ThreadData {
  /** The folder of the studio's database. */
  readonly folder: string;
  /** Whether nobody waits for what it does: the machine is then whose work is waited for. */
  readonly givesWay: boolean;
  /** Results that each stage of the pipeline keeps there. */
  readonly results: number;
}

const { folder, givesWay, results } = workerData as ThreadData;
keepResults(results);
keepPictures(PICTURES);
// Only there is it the priority of a thread; elsewhere the whole server would give way.
if (givesWay && platform() === 'linux') setPriority(constants.priority.PRIORITY_LOW);

const db = openToRead(folder);

/** What a thread is asked to do. */
export interface Asked {
  readonly job: JobName;
  readonly input: unknown;
  readonly task: number;
  /** Not 0 when nobody waits for it any more: it ends before its next step. */
  readonly gone: Int32Array;
}

/** What a thread is at with a task. */
export interface Told {
  readonly task: number;
  readonly what: string;
  readonly share: number | undefined;
}

/** Milliseconds between two words of how far it is. */
const TOLD_EVERY = 100;

export default ({ job, input, task, gone }: Asked): Promise<Answer> => {
  let last = 0;
  const told = (what: string, share?: number): void => {
    if (Atomics.load(gone, 0) !== 0) throw new Error('Nobody waits for this any more.');
    const now = performance.now();
    if (now - last < TOLD_EVERY) return;
    last = now;
    parentPort?.postMessage({ task, what, share } satisfies Told);
  };
  // What notes are called may have been changed since the last job.
  nameNotesAs(localeOf(db).noteNames);
  return listening(told, () => answerOf(db, job, input));
};
