/**
 * What long work is doing, told by whoever does it to whoever waits. Work itself reads nothing of it: it is the same whether
 * anybody listens or not.
 */

/** `what`: a stage of the pipeline, or 'read', 'engrave', 'print'. `share`: how much of it is done, from 0 to 1, where that is known. */
type Told = (what: string, share?: number) => void;

let listener: Told | undefined;

/** Tells what is being done now. */
export const tell: Told = (what, share) => listener?.(what, share);

/** Does something while it is listened to, until it is done or, where it gives a promise, that is settled. */
export function listening<T>(told: Told, act: () => T): T {
  const before = listener;
  const end = (): void => void (listener = before);
  listener = told;
  let isLater = false;
  try {
    const result = act();
    isLater = result instanceof Promise;
    if (result instanceof Promise) void result.then(end, end);
    return result;
  } finally {
    if (!isLater) end();
  }
}
