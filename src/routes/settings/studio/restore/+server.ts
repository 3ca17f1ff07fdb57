import { InputError } from '$core/io/inputError';
import { closeDatabase, db, migrationsFolder } from '$server/db';
import { dataFolder } from '$server/db/open';
import { troubleOf } from '$server/db/trouble';
import { closeThePool } from '$server/pool';
import { checkCopy, giveBack } from '$server/studio/copies';
import { newId } from '$server/studio/ids';
import { json } from '@sveltejs/kit';
import { createWriteStream, mkdirSync, rmSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import type { ReadableStream } from 'node:stream/web';
import type { RequestHandler } from './$types';

/** Puts a copy in place of the studio, after it has been looked at; with `look`, only looks at it. What was there is kept beside it. */
export const PUT: RequestHandler = async ({ request, url }) => {
  if (!request.body)
    return json({ message: 'No file arrived. Choose a file and try again.' }, { status: 400 });
  const folder = join(dataFolder(), 'incoming');
  const path = join(folder, `${newId()}.db`);
  try {
    mkdirSync(folder, { recursive: true });
    await pipeline(Readable.fromWeb(request.body as ReadableStream), createWriteStream(path));
    const facts = checkCopy(path, migrationsFolder());
    if (url.searchParams.has('look')) return json({ facts });
    await closeThePool();
    closeDatabase();
    const kept = giveBack(dataFolder(), path, migrationsFolder());
    db();
    return json({ facts, kept: kept && resolve(kept) });
  } catch (error) {
    const message = error instanceof InputError ? error.message : troubleOf(error, resolve(dataFolder()));
    if (message === undefined) throw error;
    return json({ message }, { status: error instanceof InputError ? 422 : 507 });
  } finally {
    rmSync(path, { force: true });
  }
};
