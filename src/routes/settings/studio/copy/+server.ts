import { db, migrationsFolder } from '$server/db';
import { dataFolder } from '$server/db/open';
import { fileDownload } from '$server/download';
import { copiesIn, copyOf, passingFolder, takeCopy } from '$server/studio/copies';
import { pathOf, work } from '$server/pool';
import { newId } from '$server/studio/ids';
import { error } from '@sveltejs/kit';
import { mkdirSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import type { RequestHandler } from './$types';

/** A copy of the whole studio as it is now, or with `day` the one that was kept on a day. */
export const GET: RequestHandler = async ({ url, request }) => {
  const day = url.searchParams.get('day');
  if (day !== null) {
    if (!copiesIn(dataFolder()).includes(day)) error(404, 'There’s no backup from this day.');
    return fileDownload(copyOf(dataFolder(), day), `Key Path ${day}.db`);
  }
  const folder = passingFolder(dataFolder(), 'outgoing');
  mkdirSync(folder, { recursive: true });
  const path = join(folder, `${newId()}.db`);
  await takeCopy(db().$client, path, migrationsFolder(), (copy) =>
    work('checkCopy', copy, { isLong: true, path: pathOf(request.url) }),
  );
  const name = `Key Path ${new Date().toISOString().slice(0, 16).replace(/[T:]/g, '-')}.db`;
  return fileDownload(path, name, () => rmSync(path, { force: true }));
};
