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
import { refreshOne } from './studio/summaries';

/**
 * In milliseconds: between two summaries that are made again and two looks whether there are any, and for how long each waits at most
 * for nobody to ask anything; between two looks after today's copy; after a fault.
 */
const PAUSES = { between: 50, idle: 5000, quiet: 1000, patience: 5000, copies: 3_600_000, after: 300_000 };

/** Opens the studio, starts the pool, and keeps the summaries fresh. */
export function start(): void {
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
