/** One thing to the server, and what came of it. */
import { z } from 'zod';

/** Longest body that browsers send on when a page has gone, less what stands around it. */
const MOST_KEPT_ALIVE = 60_000;

/** Why it was not taken, in the server's words. */
export const refusalIn = (said: unknown): string =>
  z.object({ message: z.string() }).safeParse(said).data?.message ?? 'It couldn’t be saved.';

/** "taken"; "away" where it may be taken later; else what the server said instead. */
export async function postJson(
  url: string,
  body: unknown,
): Promise<'taken' | 'away' | { readonly said: unknown }> {
  try {
    const text = JSON.stringify(body);
    const response = await fetch(url, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: text,
      // What is told as the page is left still arrives.
      keepalive: text.length < MOST_KEPT_ALIVE,
    });
    if (response.ok) return 'taken';
    // A server that is starting or in trouble may take it later.
    if (response.status >= 500) return 'away';
    return { said: await response.json().catch(() => undefined) };
  } catch {
    return 'away';
  }
}
