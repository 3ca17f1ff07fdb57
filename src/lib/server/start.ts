/** What runs beside the pages, from the start of the server. */
import { closeDatabase, db, migrationsFolder } from './db';
import { dataFolder } from './db/open';
import { whileOpen } from './restoring';
import { openThePool, work } from './pool';
import type { Work } from './pool/work';
import { quiet } from './quiet';
import { dailyCopy, sweep } from './studio/copies';
import { emptyOld } from './studio/trash';
import { setWeight, uncountedPiece } from './studio/pieces';
import { studioOverview } from './studio/overview';
import { refreshOne } from './studio/summaries';

/**
 * In milliseconds: between two summaries that are made again and two looks whether there are any, and for how long each waits at most
 * for nobody to ask anything; between two looks after today's copy; after a fault.
 */
const PAUSES = { between: 50, idle: 5000, quiet: 1000, patience: 5000, copies: 3_600_000, after: 300_000 };

/**
 * Has everything at hand that first pages need: what the lists show, and in the thread that opens pages the whole way from a file to a
 * picture. What goes wrong here is told to whoever asks for it.
 */
async function warm(): Promise<void> {
  const needed = [studioOverview(db(), work), work('warm', null)];
  for (const done of await Promise.allSettled<unknown>(needed))
    if (done.status === 'rejected')
      console.error('Something could not be made ready at the start:', done.reason);
  // Paper is asked for later than pages are.
  void work('warm', null, { isPaper: true, isLater: true }).catch((error: unknown) =>
    console.error('The thread for paper could not be made ready:', error),
  );
}

/** The server listens when this has resolved, or after so many milliseconds. */
const WARM_AT_MOST = 8000;

/** Opens the studio, starts the pool, and keeps the summaries fresh. */
export async function start(): Promise<void> {
  db();
  sweep(dataFolder());
  // What is in the write-ahead log goes into the file: the studio is one file while nobody works on it.
  process.once('exit', closeDatabase);
  openThePool();
  const passed = new Set<string>();
  // Makes again what no longer holds, one by one while the server has time.
  repeatedly('A summary could not be made again', async () => {
    await quiet(PAUSES.quiet, PAUSES.patience);
    const later: Work = (job, input, asked) => work(job, input, { ...asked, isLater: true });
    return (await countOne(passed)) || (await refreshOne(db(), later, passed)) ? PAUSES.between : PAUSES.idle;
  });
  repeatedly('Today’s copy could not be made', async () => {
    await dailyCopy(db().$client, dataFolder(), migrationsFolder(), {
      check: (copy) => work('checkCopy', copy, { isLong: true, isLater: true }),
    });
    emptyOld(db());
    return PAUSES.copies;
  });
  await Promise.race([warm(), new Promise((resolve) => setTimeout(resolve, WARM_AT_MOST).unref())]);
}

/** Counts the notes of one piece of an older studio. False where all are counted. */
async function countOne(passed: Set<string>): Promise<boolean> {
  const id = uncountedPiece(db(), passed);
  if (id === undefined) return false;
  // One that cannot be read is tried again after the next start.
  passed.add(id);
  const weight = await work('weigh', id, { isLong: true, isLater: true }).catch(() => undefined);
  if (weight) setWeight(db(), id, weight);
  return true;
}

/** Does something again and again, after the pause that it asks for; a fault is logged and stops nothing. */
function repeatedly(fault: string, act: () => Promise<number>): void {
  const step = async (): Promise<void> => {
    const pause = await whileOpen(act).catch((error: unknown) => {
      console.error(`${fault}:`, error);
      return PAUSES.after;
    });
    setTimeout(step, pause).unref();
  };
  setTimeout(step, PAUSES.idle).unref();
}
