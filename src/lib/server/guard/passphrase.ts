/** The studio's passphrase, and the browsers that have said it. */
import { hash, verify } from '@node-rs/argon2';
import { createHash, randomBytes } from 'node:crypto';
import { eq, lt } from 'drizzle-orm';
import { z } from 'zod';
import { atomically, type Db } from '../db/open';
import { session, studio } from '../db/schema';
import type { Doors } from '../studio/copies';

export const passphraseSchema = z
  .string()
  .min(10, 'Use at least ten letters; three or four words are easy to remember.')
  .max(200, 'Keep the passphrase under 200 letters.');

export const hasPassphrase = (db: Db): boolean =>
  Boolean(db.select({ passphrase: studio.passphrase }).from(studio).get()?.passphrase);

/** Sets the passphrase, or with null takes it away. Whoever is signed in has to say the new one. */
export async function setPassphrase(db: Db, passphrase: string | null): Promise<void> {
  const kept = passphrase === null ? null : await hash(passphrase);
  atomically(db, (tx) => {
    if (tx.select({ id: studio.id }).from(studio).get()) tx.update(studio).set({ passphrase: kept }).run();
    else tx.insert(studio).values({ id: 1, name: 'Your studio', passphrase: kept }).run();
    tx.delete(session).run();
  });
}

export async function isPassphrase(db: Db, said: string): Promise<boolean> {
  const kept = db.select({ passphrase: studio.passphrase }).from(studio).get()?.passphrase;
  return kept ? verify(kept, said) : false;
}

/** A session is good for so long after it was last seen; its token is a new one every so often. In hours. */
export const SESSION = { good: 30 * 24, rotated: 24 };
const hoursSince = (at: string): number => (Date.now() - Date.parse(at)) / 3_600_000;
const hashed = (token: string): string => createHash('sha256').update(token).digest('base64url');

/** Who may come in, when another file takes the place of the studio's: the passphrase stays, and the session of a token. */
export function doorsOf(db: Db, token: string | undefined): Doors {
  const passphrase = db.select({ passphrase: studio.passphrase }).from(studio).get()?.passphrase ?? null;
  const own =
    token &&
    db
      .select()
      .from(session)
      .where(eq(session.tokenHash, hashed(token)))
      .get();
  return { passphrase, session: own || null };
}

/** Begins a session; the token goes into the cookie. */
export function beginSession(db: Db): string {
  const token = randomBytes(24).toString('base64url');
  const at = new Date().toISOString();
  db.insert(session)
    .values({ tokenHash: hashed(token), createdAt: at, lastSeen: at })
    .run();
  return token;
}

export const endSession = (db: Db, token: string): void =>
  void db
    .delete(session)
    .where(eq(session.tokenHash, hashed(token)))
    .run();

/** Whether a token is good; where it has been used for a day, the one that takes its place. */
export function continueSession(db: Db, token: string): { readonly next?: string } | undefined {
  const row = db
    .select()
    .from(session)
    .where(eq(session.tokenHash, hashed(token)))
    .get();
  if (!row || hoursSince(row.lastSeen) > SESSION.good) return undefined;
  if (hoursSince(row.createdAt) < SESSION.rotated) return {};
  try {
    return { next: rotated(db, row.tokenHash) };
  } catch (error) {
    // A page is read on a full disk, too: the old token stays good.
    console.error('A session could not be renewed:', error);
    return {};
  }
}

/** Begins a session in place of one. */
const rotated = (db: Db, old: string): string =>
  atomically(db, (tx) => {
    const next = beginSession(tx);
    // What other windows have sent with the old token meanwhile is still taken for a minute.
    const soon = new Date(Date.now() - SESSION.good * 3_600_000 + 60_000).toISOString();
    tx.update(session)
      .set({ lastSeen: soon, createdAt: new Date().toISOString() })
      .where(eq(session.tokenHash, old))
      .run();
    tx.delete(session)
      .where(lt(session.lastSeen, new Date(Date.now() - SESSION.good * 3_600_000).toISOString()))
      .run();
    return next;
  });
