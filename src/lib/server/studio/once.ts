/** A form that arrives twice (a second click, a page that was sent again) makes one thing. */
import { eq, lt } from 'drizzle-orm';
import { atomically, type Db } from '../db/open';
import { submission } from '../db/schema';
import { now } from './ids';

/** Days for which a form is known. */
const KNOWN = 7;

/**
 * Makes something, and keeps where that led, under the token that the form carries; a form with a known token leads there again and
 * makes nothing. A form without a token is taken as it is.
 */
export const once = (db: Db, token: unknown, make: (tx: Db) => string): string =>
  atomically(db, (tx) => {
    if (typeof token !== 'string' || token.length < 16 || token.length > 64) return make(tx);
    const known = tx.select().from(submission).where(eq(submission.token, token)).get();
    if (known) return known.led;
    const led = make(tx);
    const long = new Date(Date.now() - KNOWN * 86_400_000).toISOString();
    tx.delete(submission).where(lt(submission.createdAt, long)).run();
    tx.insert(submission).values({ token, led, createdAt: now() }).run();
    return led;
  });
