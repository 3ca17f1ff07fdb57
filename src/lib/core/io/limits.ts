/** Largest file that is read, in bytes. */
export const MOST_BYTES = 10 * 1024 * 1024;

/** Said of a file that is larger; undefined for one that is not. */
export const tooLarge = (name: string, bytes: number): string | undefined =>
  bytes > MOST_BYTES
    ? `“${name}” has ${Math.round(bytes / 1024 / 1024)} MB; a score of up to ${MOST_BYTES / 1024 / 1024} MB can be read.`
    : undefined;
