/** When nobody asks anything of the server: what may wait is done then, so that while somebody works the machine is theirs. */

let lastAsked = -Infinity;

/** Somebody asks something. */
export function asks(): void {
  lastAsked = performance.now();
}

/** Resolves when nobody has asked anything for so many milliseconds, at the latest after as many as it can wait. */
export async function quiet(pause: number, atMost: number): Promise<void> {
  const until = performance.now() + atMost;
  for (;;) {
    const now = performance.now();
    const left = Math.min(lastAsked + pause, until) - now;
    if (left <= 0) return;
    // The end of the server does not wait for it.
    await new Promise((resolve) => setTimeout(resolve, left).unref());
  }
}
