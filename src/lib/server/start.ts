/** What runs beside the pages, from the start of the server. */
import { closeDatabase, db, migrationsFolder } from './db';
import { dataFolder } from './db/open';
import { openThePool, work } from './pool';
import { dailyCopy } from './studio/copies';
import { emptyOld } from './studio/trash';
import { refreshOne } from './studio/summaries';

/** Between two summaries that are made again, and between two looks whether there are any, in milliseconds. */
const PAUSES = { between: 50, idle: 5000, copies: 3_600_000 };

/** Opens the studio, starts the pool, and keeps the summaries fresh. */
export function start(): void {
  db();
  // What is in the write-ahead log goes into the file: the studio is one file while nobody works on it.
  process.once('exit', closeDatabase);
  openThePool();
  keepFresh();
  daily();
}

/** Every hour: today's copy, where there is none yet, and the trash that is old is emptied. */
function daily(): void {
  const step = async (): Promise<void> => {
    try {
      await dailyCopy(db().$client, dataFolder(), migrationsFolder());
      emptyOld(db());
    } catch (error) {
      console.error('Today’s copy could not be made:', error);
    }
    setTimeout(step, PAUSES.copies).unref();
  };
  setTimeout(step, PAUSES.idle).unref();
}

/** Makes again what no longer holds, one by one while the server has time. */
function keepFresh(): void {
  const passed = new Set<string>();
  const step = async (): Promise<void> => {
    let more = false;
    try {
      more = await refreshOne(db(), (job, input) => work(job, input, { isLater: true }), passed);
    } catch (error) {
      console.error('A summary could not be made again:', error);
    }
    setTimeout(step, more ? PAUSES.between : PAUSES.idle).unref();
  };
  setTimeout(step, PAUSES.idle).unref();
}
