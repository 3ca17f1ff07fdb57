/** The one database of this process. KEYPATH_DATA names its folder. */
import { fillDemoStudio, isEmpty } from '../studio/demo';
import { refreshOne } from '../studio/summaries';
import { carryOver } from '../studio/carryOver';
import { openDatabase, type Db } from './open';

let opened: Db | undefined;

/** Opens on first use; with KEYPATH_DEMO=1 an empty database is filled with the demo studio. */
export function db(): Db {
  if (!opened) {
    opened = openDatabase(process.env.KEYPATH_DATA ?? 'data', process.env.KEYPATH_MIGRATIONS ?? 'drizzle');
    carryOver(opened);
    keepFresh(opened);
    if (process.env.KEYPATH_DEMO === '1' && isEmpty(opened)) fillDemoStudio(opened);
  }
  return opened;
}

/** Between two summaries that are made again, and between two looks whether there are any, in milliseconds. */
const PAUSES = { between: 50, idle: 5000 };

/** Makes again what no longer holds, one by one while the server has time. */
function keepFresh(studio: Db): void {
  const step = (): void => {
    let more = false;
    try {
      more = refreshOne(studio);
    } catch (error) {
      console.error('A summary could not be made again:', error);
    }
    setTimeout(step, more ? PAUSES.between : PAUSES.idle).unref();
  };
  setTimeout(step, PAUSES.idle).unref();
}
