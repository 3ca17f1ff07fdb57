/** The one database of this process. */
import { fillDemoStudio, isEmpty } from '../studio/demo';
import { carryOver } from '../studio/carryOver';
import { dataFolder, openDatabase, type Db } from './open';

let opened: Db | undefined;

/** Opens on first use; with KEYPATH_DEMO=1 an empty database is filled with the demo studio. */
export function db(): Db {
  if (!opened) {
    opened = openDatabase(dataFolder(), process.env.KEYPATH_MIGRATIONS ?? 'drizzle');
    carryOver(opened);
    if (process.env.KEYPATH_DEMO === '1' && isEmpty(opened)) fillDemoStudio(opened);
  }
  return opened;
}
