/** What the server asks of its pool, and how: the only way from a page to anything that takes long. */
import { InputError } from '$core/io/inputError';
import type { Db } from '../db/open';
import { jobs, type Jobs } from './jobs';

export type JobName = keyof Jobs;
export type JobInput<J extends JobName> = Parameters<Jobs[J]>[1];
export type JobOutput<J extends JobName> = Awaited<ReturnType<Jobs[J]>>;

export interface Asked {
  /** What has not begun when this aborts is never done. */
  readonly signal?: AbortSignal | undefined;
  /** The path of the page that waits for it: whoever looks there sees how far it is, and can stop it. */
  readonly path?: string | undefined;
  /** Whether it may take long: such work never stands before what opens a page. */
  readonly isLong?: boolean;
  /** Whether it makes paper or a file for another program, which takes up to a second or two: it goes beside what opens pages. */
  readonly isPaper?: boolean;
  /** What is seen later goes behind what is seen first; if it may take long, in a thread that gives way to all others. */
  readonly isLater?: boolean;
}

/**
 * Runs a job. Rejects with InputError where the input cannot be used, with WorkStopped where it took too long or too much room.
 */
export type Work = <J extends JobName>(job: J, input: JobInput<J>, asked?: Asked) => Promise<JobOutput<J>>;

/** Work that was stopped at a limit, with a sentence for the teacher. */
export class WorkStopped extends Error {
  override readonly name = 'WorkStopped';
}

/** An answer as it crosses from a thread: classes of errors do not. */
export type Answer = { readonly output: unknown } | { readonly wrongInput: string };

/** Runs a job in this thread: what the pool's threads do. */
export async function answerOf(db: Db, job: JobName, input: unknown): Promise<Answer> {
  try {
    return { output: await jobs[job](db, input as never) };
  } catch (error) {
    if (error instanceof InputError) return { wrongInput: error.message };
    throw error;
  }
}

/** The output of an answer. Throws InputError. */
export function outputOf(answer: Answer): unknown {
  if ('wrongInput' in answer) throw new InputError(answer.wrongInput);
  return answer.output;
}

/** Work without a pool, in this thread: for tests and scripts. */
export const inThisThread =
  (db: Db): Work =>
  async (job, input) =>
    outputOf(await answerOf(db, job, input)) as never;
