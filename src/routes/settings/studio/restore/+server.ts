import { InputError } from '$core/io/inputError';
import { db, generation, migrationsFolder } from '$server/db';
import { dataFolder } from '$server/db/open';
import { troubleOf } from '$server/db/trouble';
import { SESSION_COOKIE } from '$server/guard/cookie';
import { GENERATION } from '$server/guard/generation';
import { doorsOf } from '$server/guard/passphrase';
import { pathOf, work } from '$server/pool';
import { WorkStopped } from '$server/pool/work';
import { restoreStudio } from '$server/restoring';
import { passingFolder } from '$server/studio/copies';
import { removeStudioFile } from '$server/studio/copyCheck';
import { newId } from '$server/studio/ids';
import { json } from '@sveltejs/kit';
import { createWriteStream, mkdirSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import type { ReadableStream } from 'node:stream/web';
import type { RequestHandler } from './$types';

/** What a file is called in sentences about it, where its page does not say. */
const UNNAMED = 'This file';

/** Puts a copy in place of the studio, after it has been looked at; with `look`, only looks at it. What was there is kept beside it. */
export const PUT: RequestHandler = async ({ request, url, cookies }) => {
  if (!request.body)
    return json({ message: 'No file arrived. Choose a file and try again.' }, { status: 400 });
  const folder = passingFolder(dataFolder(), 'incoming');
  const path = join(folder, `${newId()}.db`);
  const next = `${path}.next`;
  try {
    mkdirSync(folder, { recursive: true });
    await pipeline(Readable.fromWeb(request.body as ReadableStream), createWriteStream(path));
    const name = url.searchParams.get('name')?.slice(0, 120) || UNNAMED;
    const facts = await work(
      'readyCopy',
      { path, next, name, migrations: migrationsFolder() },
      { isLong: true, path: pathOf(request.url) },
    );
    if (url.searchParams.has('look')) return json({ facts });
    const token = cookies.get(SESSION_COOKIE);
    const kept = await restoreStudio(next, () => doorsOf(db(), token));
    return json({ facts, kept: kept && resolve(kept) }, { headers: { [GENERATION]: generation() } });
  } catch (error) {
    const isWrong = error instanceof InputError || error instanceof WorkStopped;
    const message = isWrong ? error.message : troubleOf(error, resolve(dataFolder()));
    if (message === undefined) throw error;
    return json({ message }, { status: isWrong ? 422 : 507 });
  } finally {
    removeStudioFile(path);
    removeStudioFile(next);
  }
};
