/**
 * Another file takes the place of the studio's while the server runs. Requests that come meanwhile wait; those that are being answered
 * are waited for, so that none reads half of one studio and half of another.
 */
import { closeDatabase, db } from './db';
import { dataFolder } from './db/open';
import { closeThePool, openThePool } from './pool';
import { putInPlace, type Doors } from './studio/copies';

/** Requests that are being answered, and who waits for their end. */
let answering = 0;
let onQuiet: (() => void) | undefined;
/** Resolves when a restore that goes on has ended. */
let restoring: Promise<void> | undefined;

/** Answers a request: not while another file is put in place. */
export async function whileOpen<T>(answer: () => Promise<T>): Promise<T> {
  while (restoring) await restoring;
  answering += 1;
  try {
    return await answer();
  } finally {
    answering -= 1;
    if (answering === 0) onQuiet?.();
  }
}

/** Milliseconds after which requests that go on are no longer waited for: their work is ended with its threads. */
const PATIENCE = 3000;

const quietened = (): Promise<void> =>
  new Promise((resolve) => {
    if (answering === 0) return resolve();
    onQuiet = resolve;
    setTimeout(resolve, PATIENCE).unref();
  });

/**
 * Puts a copy that was made ready in place of the studio's file, outside of `whileOpen`. Where what was there is kept comes back. What
 * cannot be put in place leaves the studio as it was.
 */
export async function restoreStudio(next: string, doors: () => Doors): Promise<string | null> {
  while (restoring) await restoring;
  let end: () => void = () => undefined;
  restoring = new Promise((resolve) => (end = resolve));
  try {
    await quietened();
    const kept = doors();
    await closeThePool();
    closeDatabase();
    try {
      return putInPlace(dataFolder(), next, kept);
    } finally {
      db();
      openThePool();
    }
  } finally {
    onQuiet = undefined;
    restoring = undefined;
    end();
  }
}
