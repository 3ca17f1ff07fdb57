/** The one database of this process. */
import { fillDemoStudio, isEmpty } from '../studio/demo/fill';
import { carryOver } from '../studio/carryOver';
import { lockStudio, type Lock } from './lock';
import { dataFolder, generationIn, openDatabase, type OpenDb } from './open';

interface Opened {
  readonly db: OpenDb;
  readonly generation: string;
}
let opened: Opened | undefined;
/** Held as long as the process lives: a connection that nobody holds is closed. */
let lock: Lock | undefined;

/** Where the migrations are: KEYPATH_MIGRATIONS names their folder. */
export const migrationsFolder = (): string => process.env.KEYPATH_MIGRATIONS ?? 'drizzle';

function open(): Opened {
  // While Vite serves the sources, every change of them is a new module that opens anew.
  if (import.meta.env.PROD) lock ??= lockStudio(dataFolder());
  const db = openDatabase(dataFolder(), migrationsFolder());
  carryOver(db);
  if (process.env.KEYPATH_DEMO === '1' && isEmpty(db)) fillDemoStudio(db);
  return { db, generation: String(generationIn(db.$client)) };
}

/**
 * Opens on first use; with KEYPATH_DEMO=1 an empty database is filled with the demo studio. Throws StudioProblem where it cannot be
 * opened, or another process works on it.
 */
export const db = (): OpenDb => (opened ??= open()).db;

/** Names what the studio's file is now: another one after a copy was given back. */
export function generation(): string {
  db();
  return opened!.generation;
}

/** Closes the database, so that its file can be put in place of another; the next use opens it again. */
export function closeDatabase(): void {
  opened?.db.$client.close();
  opened = undefined;
}
