/** One thing to the server, and what came of it. */
import { z } from 'zod';

/** Why it was not taken, in the server's words. */
export const refusalIn = (said: unknown): string =>
  z.object({ message: z.string() }).safeParse(said).data?.message ?? 'It couldn’t be saved.';

/** "taken"; "away" where it may be taken later; else what the server said instead. */
export async function postJson(
  url: string,
  body: unknown,
): Promise<'taken' | 'away' | { readonly said: unknown }> {
  try {
    const response = await fetch(url, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(body),
    });
    if (response.ok) return 'taken';
    // A server that is starting or in trouble may take it later.
    if (response.status >= 500) return 'away';
    return { said: await response.json().catch(() => undefined) };
  } catch {
    return 'away';
  }
}
