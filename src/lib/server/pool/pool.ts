/**
 * Threads for whatever takes long: reading, arranging, engraving, writing files. Two lanes: what may take seconds never stands in
 * front of what opens a page. Each lane has limits of time and memory; a thread that reaches one is ended and replaced.
 */
import PQueue from 'p-queue';
import { Piscina } from 'piscina';
import { availableParallelism } from 'node:os';
import { outputOf, WorkStopped, type Answer, type JobName, type Work } from './work';
import type { ThreadData } from './worker';

/** Limits of one job, in seconds, and of one thread, in MB of its heap: what opens pages needs less than what reads files. */
const LIMITS = { seconds: 30, megabytes: 224, quickMegabytes: 144 };

export interface Pool {
  readonly work: Work;
  close(): Promise<void>;
}

interface Lane {
  readonly threads: Piscina;
  readonly queue: PQueue;
}

export interface PoolOptions {
  readonly folder: string;
  /** The script of a thread, and how Node loads it. */
  readonly script: string;
  readonly execArgv?: readonly string[];
  readonly limits?: typeof LIMITS;
}

export function openPool({ folder, script, execArgv = [], limits = LIMITS }: PoolOptions): Pool {
  const lane = (count: number, megabytes: number): Lane => {
    const threads = new Piscina({
      filename: script,
      minThreads: 1,
      maxThreads: count,
      idleTimeout: 60_000,
      execArgv: [...execArgv],
      workerData: { folder } satisfies ThreadData,
      resourceLimits: { maxOldGenerationSizeMb: megabytes },
      recordTiming: false,
    });
    // A thread that ends outside of a job is replaced; the job that ends with one says so itself.
    threads.on('error', (error) => console.error('A thread of the pool ended:', error));
    return { threads, queue: new PQueue({ concurrency: count }) };
  };
  const lanes = {
    quick: lane(1, limits.quickMegabytes),
    long: lane(Math.min(3, Math.max(1, availableParallelism() - 2)), limits.megabytes),
  };

  const run = async ({ threads }: Lane, job: JobName, input: unknown): Promise<Answer> => {
    try {
      return (await threads.run(
        { job, input },
        { signal: AbortSignal.timeout(limits.seconds * 1000) },
      )) as Answer;
    } catch (error) {
      throw stopped(error, limits) ?? error;
    }
  };

  return {
    work: async (job, input, { signal, isLong = false, isLater = false } = {}) => {
      const chosen = isLong ? lanes.long : lanes.quick;
      const answer = await chosen.queue.add(
        () => {
          // Whoever asked may have gone while it waited.
          signal?.throwIfAborted();
          return run(chosen, job, input);
        },
        { priority: isLater ? 0 : 1 },
      );
      return outputOf(answer) as never;
    },
    async close() {
      await Promise.all(Object.values(lanes).map(({ threads }) => threads.destroy()));
    },
  };
}

/** A sentence for what a thread was ended for. */
function stopped(error: unknown, { seconds, megabytes }: typeof LIMITS): WorkStopped | undefined {
  if (!(error instanceof Error)) return undefined;
  if (error.name === 'AbortError')
    return new WorkStopped(`This took longer than ${seconds} seconds and was stopped. Nothing was changed.`);
  if ('code' in error && error.code === 'ERR_WORKER_OUT_OF_MEMORY')
    return new WorkStopped(
      `This needs more memory than the ${megabytes} MB that one piece may take, and was stopped. Nothing was changed.`,
    );
  return undefined;
}
