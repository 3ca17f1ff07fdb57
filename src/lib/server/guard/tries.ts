/**
 * Wrong passphrases slow down the address that sends them, so that nobody can go through a dictionary; they lock nobody out. Whoever has
 * the right one gets in: at once from any other address, and after the pause from this one.
 */
import { LRUCache } from 'lru-cache';
import { RateLimiterMemory } from 'rate-limiter-flexible';

/** Wrong tries that cost nothing; then each doubles the pause before the next, up to the longest. In milliseconds. */
const FREE = 4;
const FIRST_PAUSE = 500;
const LONGEST_PAUSE = 8000;
/** Minutes after which wrong tries are forgotten. */
const FORGOTTEN = 15;
/** An address whose tries wait longer than this for their turn is told to come back. */
const PATIENCE = 30_000;
/** Addresses that are kept in mind. */
const MOST_ADDRESSES = 10_000;

export class Tries {
  readonly #wrong = new RateLimiterMemory({ points: Number.MAX_SAFE_INTEGER, duration: FORGOTTEN * 60 });
  /** When the last try of an address has its turn. */
  readonly #turns = new LRUCache<string, number>({ max: MOST_ADDRESSES, ttl: FORGOTTEN * 60_000 });

  /**
   * Takes a turn for a try, which counts as wrong until it was right: many at once are as many tries. Gives the milliseconds to wait
   * before it is looked at (by a clock that nobody sets); with `isTooMany`, those after which another one may come, since too many of the address wait already.
   */
  async turn(
    from: string,
    now = performance.now(),
  ): Promise<{ readonly wait: number; readonly isTooMany: boolean }> {
    const wrong = (await this.#wrong.get(from))?.consumedPoints ?? 0;
    const pause = wrong < FREE ? 0 : Math.min(LONGEST_PAUSE, FIRST_PAUSE * 2 ** (wrong - FREE));
    const at = pause === 0 ? now : Math.max(now, this.#turns.get(from) ?? now) + pause;
    if (at - now > PATIENCE) return { wait: at - now - PATIENCE, isTooMany: true };
    this.#turns.set(from, at);
    await this.#wrong.penalty(from);
    return { wait: at - now, isTooMany: false };
  }

  /** An address that has said the right one begins anew. */
  async right(from: string): Promise<void> {
    this.#turns.delete(from);
    await this.#wrong.delete(from);
  }
}
