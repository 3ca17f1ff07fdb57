/** A thread of the pool. It has its own connection to the studio's database, which it only reads. */
import { listening } from '$core/pipeline/progress';
import { parentPort } from 'node:worker_threads';
import { workerData } from 'piscina';
import { openToRead } from '../db/open';
import { answerOf, type Answer, type JobName } from './work';

export interface ThreadData {
  /** The folder of the studio's database. */
  readonly folder: string;
}

const db = openToRead((workerData as ThreadData).folder);

/** What a thread is at with a task. */
export interface Told {
  readonly task: number;
  readonly what: string;
  readonly share: number | undefined;
}

/** Milliseconds between two words of how far it is. */
const TOLD_EVERY = 100;

export default ({ job, input, task }: { job: JobName; input: unknown; task: number }): Promise<Answer> => {
  let last = 0;
  const told = (what: string, share?: number): void => {
    const now = performance.now();
    if (now - last < TOLD_EVERY) return;
    last = now;
    parentPort?.postMessage({ task, what, share } satisfies Told);
  };
  return listening(told, () => answerOf(db, job, input));
};
