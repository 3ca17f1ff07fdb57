/** Names for what is made from something: equal content has an equal name, and nothing needs to be told to forget. */
import { createHash } from 'node:crypto';

/**
 * Raised when readers, analysis or arranger make something else of the same source: what was kept of it is then made again.
 * engine.test.ts says when.
 */
export const ENGINE = 15;

/** A short name of plain data. */
export const contentKey = (...content: readonly unknown[]): string =>
  createHash('sha1').update(JSON.stringify(content)).digest('base64url');

/** The name of a file by its bytes. */
export const hashOf = (bytes: Uint8Array): string => createHash('sha256').update(bytes).digest('base64url');
