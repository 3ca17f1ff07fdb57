/** What can be wrong with the place where a studio is kept, in one sentence that says what to do. */

/** The studio cannot be opened as it is. */
export class StudioProblem extends Error {
  override readonly name = 'StudioProblem';
}

const codeOf = (error: unknown): string =>
  typeof error === 'object' && error !== null && 'code' in error && typeof error.code === 'string'
    ? error.code
    : '';

const SENTENCES: readonly (readonly [RegExp, (folder: string) => string])[] = [
  [
    /^(SQLITE_FULL|ENOSPC|EDQUOT)/,
    (folder) =>
      `The disk is full: nothing more can be saved in ${folder}. Make room on it; what was saved before is safe.`,
  ],
  [
    /^(SQLITE_NOTADB)/,
    (folder) =>
      `The file keypath.db in ${folder} is not a Key Path studio. Put the right file there, or restore a backup with ./keypath restore FILE.`,
  ],
  [
    /^(SQLITE_CORRUPT)/,
    (folder) =>
      `The studio's file in ${folder} is damaged. Restore the newest backup from its folder “copies” with ./keypath restore FILE; the damaged file is kept beside it.`,
  ],
  [
    /^(SQLITE_READONLY|SQLITE_CANTOPEN|SQLITE_PERM|EACCES|EROFS|EPERM)/,
    (folder) =>
      `The folder ${folder} can’t be written to. Give this user the right to write there, or name another folder in KEYPATH_DATA.`,
  ],
  [
    /^(SQLITE_IOERR|EIO)/,
    (folder) =>
      `The disk with ${folder} isn’t responding properly. Check the disk, and keep a backup of the studio elsewhere.`,
  ],
  [
    /^(SQLITE_BUSY|SQLITE_LOCKED)/,
    (folder) => `The studio in ${folder} is busy with something else. Try again in a moment.`,
  ],
  [/^ENOTDIR|^EEXIST/, (folder) => `${folder} isn’t a folder. Name a folder for the studio in KEYPATH_DATA.`],
];

/** A sentence for a fault of the disk or the database; undefined for any other. */
export function troubleOf(error: unknown, folder: string): string | undefined {
  if (error instanceof StudioProblem) return error.message;
  const code = codeOf(error) || codeOf((error as { cause?: unknown } | null)?.cause);
  return SENTENCES.find(([pattern]) => pattern.test(code))?.[1](folder);
}
