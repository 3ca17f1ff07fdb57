/** The one database of this process. */
import { fillDemoStudio, isEmpty } from '../studio/demo/fill';
import { carryOver } from '../studio/carryOver';
import { lockStudio, type Lock } from './lock';
import { dataFolder, openDatabase, type OpenDb } from './open';

let opened: OpenDb | undefined;
/** Held as long as the process lives: a connection that nobody holds is closed. */
let lock: Lock | undefined;

/** Where the migrations are: KEYPATH_MIGRATIONS names their folder. */
export const migrationsFolder = (): string => process.env.KEYPATH_MIGRATIONS ?? 'drizzle';

/**
 * Opens on first use; with KEYPATH_DEMO=1 an empty database is filled with the demo studio. Throws StudioProblem where it cannot be
 * opened, or another process works on it.
 */
export function db(): OpenDb {
  if (!opened) {
    // While Vite serves the sources, every change of them is a new module that opens anew.
    if (import.meta.env.PROD) lock ??= lockStudio(dataFolder());
    opened = openDatabase(dataFolder(), migrationsFolder());
    carryOver(opened);
    if (process.env.KEYPATH_DEMO === '1' && isEmpty(opened)) fillDemoStudio(opened);
  }
  return opened;
}

/** Closes the database, so that its file can be put in place of another; the next use opens it again. */
export function closeDatabase(): void {
  opened?.$client.close();
  opened = undefined;
}
