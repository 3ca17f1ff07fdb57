/** The one database of this process. KEYPATH_DATA names its folder. */
import { fillDemoStudio, isEmpty } from '../studio/demo';
import { carryOver } from '../studio/carryOver';
import { openDatabase, type Db } from './open';

let opened: Db | undefined;

/** Opens on first use; with KEYPATH_DEMO=1 an empty database is filled with the demo studio. */
export function db(): Db {
  if (!opened) {
    opened = openDatabase(process.env.KEYPATH_DATA ?? 'data', process.env.KEYPATH_MIGRATIONS ?? 'drizzle');
    carryOver(opened);
    if (process.env.KEYPATH_DEMO === '1' && isEmpty(opened)) fillDemoStudio(opened);
  }
  return opened;
}
