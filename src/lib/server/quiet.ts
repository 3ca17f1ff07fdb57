/** When nobody asks anything of the server: what may wait is done then, so that while somebody works the machine is theirs. */

let lastAsked = -Infinity;

/** Somebody asks something. */
export function asks(): void {
  lastAsked = performance.now();
}

/**
 * Resolves when nobody has asked anything for so many milliseconds, at the latest after as many as it can wait: then with false.
 */
export async function quiet(pause: number, atMost: number): Promise<boolean> {
  const until = performance.now() + atMost;
  for (;;) {
    const now = performance.now();
    if (lastAsked + pause <= now) return true;
    if (until <= now) return false;
    const left = Math.min(lastAsked + pause, until) - now;
    // The end of the server does not wait for it.
    await new Promise((resolve) => setTimeout(resolve, left).unref());
  }
}
