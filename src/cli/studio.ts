/** Commands about the studio itself, in the folder that KEYPATH_DATA names: copies, and the passphrase. */
import Database from 'better-sqlite3';
import { existsSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { resolve } from 'node:path';
import { createInterface } from 'node:readline/promises';
import { InputError } from '../lib/core/io/inputError';
import { dataFolder, fileIn, openDatabase } from '../lib/server/db/open';
import { lockStudio } from '../lib/server/db/lock';
import { StudioProblem } from '../lib/server/db/trouble';
import { passphraseSchema, setPassphrase } from '../lib/server/guard/passphrase';
import type { StudioCommand } from './studioCommands';
import { giveBack, takeCopy } from '../lib/server/studio/copies';
import type { CopyFacts } from '../lib/server/studio/copyCheck';

const MIGRATIONS = fileURLToPath(new URL('../../drizzle', import.meta.url));

const factsText = ({ learners, pieces, versions }: CopyFacts): string =>
  `${learners} students, ${pieces} pieces, ${versions} versions`;

/** Takes a copy while people work. */
async function backup(file: string | undefined): Promise<string> {
  if (!file) throw new InputError('backup needs the name of the file to write: ./keypath backup FILE');
  const studio = fileIn(dataFolder());
  if (!existsSync(studio))
    throw new InputError(`There is no studio in ${resolve(dataFolder())}. KEYPATH_DATA names its folder.`);
  const from = new Database(studio, { readonly: true });
  try {
    return `${file}: ${factsText(await takeCopy(from, file, MIGRATIONS))}`;
  } finally {
    from.close();
  }
}

/** Gives a copy back; Key Path must not be running on the folder. */
async function restore(file: string | undefined): Promise<string> {
  if (!file) throw new InputError('restore needs a backup: ./keypath restore FILE');
  const lock = lockStudio(dataFolder());
  try {
    const kept = giveBack(dataFolder(), file, MIGRATIONS);
    return `${file} is in place in ${resolve(dataFolder())}.${kept ? ` What was there is kept in ${kept}.` : ''}`;
  } finally {
    lock.release();
  }
}

/** Asks for a passphrase on standard input and sets it. */
async function passphrase(): Promise<string> {
  const asking = createInterface({ input: process.stdin, output: process.stderr });
  const said = await asking.question('The studio’s new passphrase: ');
  asking.close();
  const parsed = passphraseSchema.safeParse(said);
  if (!parsed.success) throw new InputError(parsed.error.issues[0]!.message);
  const db = openDatabase(dataFolder(), MIGRATIONS);
  await setPassphrase(db, parsed.data);
  db.$client.close();
  return 'The passphrase is set.';
}

const ACTS: Readonly<Record<StudioCommand, (file: string | undefined) => Promise<string>>> = {
  backup,
  restore,
  passphrase,
};

/** Carries out one of them. Gives the status: 0 done, 2 it could not be. */
export async function studioCommand(name: StudioCommand, file: string | undefined): Promise<number> {
  try {
    console.log(await ACTS[name](file));
    return 0;
  } catch (error) {
    if (!(error instanceof InputError || error instanceof StudioProblem)) throw error;
    console.error(`keypath: ${error.message}`);
    return 2;
  }
}
