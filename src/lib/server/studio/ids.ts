import { randomBytes } from 'node:crypto';

/** Unguessable, short enough for a link: 72 random bits. */
export const newId = (): string => randomBytes(9).toString('base64url');

/** Now, as it is stored. */
export const now = (): string => new Date().toISOString();
