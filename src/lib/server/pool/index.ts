/** The one pool of this process. KEYPATH_WORKER names the built script of its threads. */
import { pathToFileURL } from 'node:url';
import { resolve } from 'node:path';
import { dataFolder } from '../db/open';
import { openPool, type Doing, type Pool } from './pool';
import { db } from '../db';
import { isLongPiece } from '../studio/pieces';
import { WorkStopped, type Asked, type Work } from './work';

let pool: Pool | undefined;
/** While another file is put in place of the studio's, no thread opens the one that goes. */
let isClosed = false;

/** Started with the server: the first page does not wait for a thread. */
export function openThePool(): Pool {
  isClosed = false;
  // Built, a thread runs its own bundle; from the sources, it reads them as they are.
  pool ??= openPool(
    import.meta.env.PROD
      ? { folder: dataFolder(), script: resolve(process.env.KEYPATH_WORKER ?? 'build/worker/worker.js') }
      : {
          folder: dataFolder(),
          script: resolve('src/lib/server/pool/worker.ts'),
          execArgv: ['--import', pathToFileURL(resolve('node_modules/tsx/dist/loader.mjs')).href],
          // Compiling the sources takes room as well.
          limits: { seconds: 60, megabytes: 3000, quickMegabytes: 3000 },
        },
  );
  return pool;
}

/** Ends the threads, so that another file can take the place of the studio's; `openThePool` starts new ones. */
export async function closeThePool(): Promise<void> {
  isClosed = true;
  await pool?.close();
  pool = undefined;
}

/** How work on a piece is asked for by a request: no longer wanted when the request is gone. */
export const about = (pieceId: string, { signal, url }: Request): Asked => ({
  signal,
  path: pathOf(url),
  isLong: isLongPiece(db(), pieceId),
});

/** The path of the page that a request is for, be it for its data only. */
export const pathOf = (url: string): string => new URL(url).pathname.replace(/\/__data\.json$/, '') || '/';

/** Asks the pool of this process. */
export const work: Work = (job, input, asked) =>
  isClosed
    ? Promise.reject(new WorkStopped('The studio is being restored. Try again in a moment.'))
    : openThePool().work(job, input, asked);

/** The longest work that goes on for a page, by its path. */
export const doing = (path: string): Doing | undefined => pool?.doing(path);

/** Ends what goes on for a page. */
export const stopWork = (path: string): void => pool?.stop(path);
