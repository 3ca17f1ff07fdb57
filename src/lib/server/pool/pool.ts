/**
 * Threads for whatever takes long: reading, arranging, engraving, writing files. Four lanes: what opens a page waits neither for paper,
 * which takes a second or two, nor for a heavy piece, which takes many; and what nobody waits for gives way to all. Each lane has limits of
 * time and memory; a thread that reaches one is ended and replaced.
 */
import PQueue from 'p-queue';
import { Piscina } from 'piscina';
import { availableParallelism } from 'node:os';
import { outputOf, WorkStopped, type Answer, type Asked as JobAsked, type Work } from './work';
import type { Asked, ThreadData, Told } from './worker';

/** Limits of one job, in seconds, and of one thread, in MB of its heap: what opens pages needs less than what reads files. */
const LIMITS = { seconds: 30, megabytes: 144, quickMegabytes: 72 };

/** Work that goes on for a page. */
export interface Doing {
  /** What it is at: "waits", a stage of the pipeline or a step (core/pipeline/progress.ts). */
  readonly what: string;
  /** How much of that is done, from 0 to 1, where it is known. */
  readonly share: number | undefined;
  readonly seconds: number;
}

interface Task {
  readonly path: string | undefined;
  readonly since: number;
  readonly stop: AbortController;
  what: string;
  share: number | undefined;
}

/** Megabytes for what was made lately; V8 takes several times as much by itself, in each thread. */
const YOUNG = 8;

/** Results that each stage keeps: of what is opened, the versions of several people; of what is seldom done, those of one. */
const RESULTS = { open: 8, seldom: 4 };

/** Milliseconds after which a thread that nobody needs is ended: its memory is everybody's. */
const IDLE = { usual: 30_000, later: 1000 };

export interface Pool {
  readonly work: Work;
  /** The longest work that goes on for a path. */
  doing(path: string): Doing | undefined;
  /** Ends the work for a path. */
  stop(path: string): void;
  close(): Promise<void>;
}

interface Lane {
  readonly threads: Piscina;
  readonly queue: PQueue;
  /** How long one job may take. */
  readonly seconds: number;
}

/** What gives way to others may stand still for long: its limit is so many times theirs. */
const LATER_FACTOR = 10;

interface PoolOptions {
  readonly folder: string;
  /** The script of a thread, and how Node loads it. */
  readonly script: string;
  readonly execArgv?: readonly string[];
  readonly limits?: typeof LIMITS;
}

export function openPool({ folder, script, execArgv = [], limits = LIMITS }: PoolOptions): Pool {
  const tasks = new Map<number, Task>();
  let lastTask = 0;
  const lane = (
    count: number,
    megabytes: number,
    { stays = false, isLater = false }: { readonly stays?: boolean; readonly isLater?: boolean } = {},
  ): Lane => {
    const threads = new Piscina({
      filename: script,
      // What is seldom done has no thread of its own in between.
      minThreads: stays ? 1 : 0,
      maxThreads: count,
      idleTimeout: isLater ? IDLE.later : IDLE.usual,
      execArgv: [...execArgv],
      workerData: {
        folder,
        givesWay: isLater,
        results: stays ? RESULTS.open : RESULTS.seldom,
      } satisfies ThreadData,
      resourceLimits: { maxOldGenerationSizeMb: megabytes, maxYoungGenerationSizeMb: YOUNG },
      recordTiming: false,
    });
    // A thread that ends outside of a job is replaced; the job that ends with one says so itself.
    threads.on('error', (error) => console.error('A thread of the pool ended:', error));
    threads.on('message', ({ task, what, share }: Told) => {
      const told = tasks.get(task);
      if (told) Object.assign(told, { what, share });
    });
    return {
      threads,
      queue: new PQueue({ concurrency: count }),
      seconds: isLater ? LATER_FACTOR * limits.seconds : limits.seconds,
    };
  };
  const lanes = {
    quick: lane(1, limits.quickMegabytes, { stays: true }),
    paper: lane(1, limits.quickMegabytes, { stays: true }),
    long: lane(Math.min(3, Math.max(1, availableParallelism() - 2)), limits.megabytes),
    later: lane(1, limits.megabytes, { isLater: true }),
  };
  const laneOf = ({ isLong, isLater, isPaper }: JobAsked): Lane =>
    isLong ? (isLater ? lanes.later : lanes.long) : isPaper ? lanes.paper : lanes.quick;

  const run = async (
    { threads, seconds }: Lane,
    asked: Omit<Asked, 'gone'>,
    stop: AbortSignal,
    wanted: AbortSignal | undefined,
    isLong: boolean,
  ): Promise<Answer> => {
    const timeout = AbortSignal.timeout(seconds * 1000);
    // Ending a thread and starting another costs more than the rest of a quick step that nobody waits for any more, and less than a long one.
    const ends = isLong && wanted ? [wanted] : [];
    const gone = new Int32Array(new SharedArrayBuffer(4));
    const leave = (): void => void Atomics.store(gone, 0, 1);
    wanted?.addEventListener('abort', leave);
    try {
      const signal = AbortSignal.any([timeout, stop, ...ends]);
      return (await threads.run({ ...asked, gone } satisfies Asked, { signal })) as Answer;
    } catch (error) {
      stop.throwIfAborted();
      wanted?.throwIfAborted();
      throw stopped(error, { ...limits, seconds }) ?? error;
    } finally {
      wanted?.removeEventListener('abort', leave);
    }
  };

  return {
    work: async (job, input, asked = {}) => {
      const { signal, path, isLong = false, isLater = false } = asked;
      const chosen = laneOf(asked);
      const task = ++lastTask;
      const stop = new AbortController();
      tasks.set(task, { path, since: Date.now(), stop, what: 'waits', share: undefined });
      try {
        const answer = await chosen.queue.add(
          () => {
            // Whoever asked may have gone while it waited.
            signal?.throwIfAborted();
            stop.signal.throwIfAborted();
            return run(chosen, { job, input, task }, stop.signal, signal, isLong);
          },
          { priority: isLater ? 0 : 1 },
        );
        return outputOf(answer) as never;
      } finally {
        tasks.delete(task);
      }
    },
    doing(path) {
      const longest = [...tasks.values()]
        .filter((t) => t.path === path)
        .sort((a, b) => Number(a.what === 'waits') - Number(b.what === 'waits') || a.since - b.since)[0];
      return (
        longest && { what: longest.what, share: longest.share, seconds: (Date.now() - longest.since) / 1000 }
      );
    },
    stop(path) {
      const why = new WorkStopped('Stopped. Nothing was changed.');
      for (const task of tasks.values()) if (task.path === path) task.stop.abort(why);
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
  // The pool was closed, for another file to take the place of the studio's.
  if (error.message === 'Terminating worker thread')
    return new WorkStopped('The studio was being restored. Try again.');
  if ('code' in error && error.code === 'ERR_WORKER_OUT_OF_MEMORY')
    return new WorkStopped(
      `This needs more memory than the ${megabytes} MB that one piece may take, and was stopped. Nothing was changed.`,
    );
  return undefined;
}
