import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { asks, quiet } from './quiet';

beforeEach(() => void vi.useFakeTimers());
afterEach(() => void vi.useRealTimers());

/** Whether it has resolved by now. */
function watched(promise: Promise<unknown>): { done: boolean } {
  const seen = { done: false };
  void promise.then(() => (seen.done = true));
  return seen;
}

it('waits until nobody has asked anything for a while, from the last asking on', async () => {
  asks();
  const seen = watched(quiet(1000, 60_000));
  await vi.advanceTimersByTimeAsync(900);
  asks();
  await vi.advanceTimersByTimeAsync(999);
  expect(seen.done).toBe(false);
  await vi.advanceTimersByTimeAsync(1);
  expect(seen.done).toBe(true);
  // It is quiet already.
  const again = watched(quiet(1000, 60_000));
  await vi.advanceTimersByTimeAsync(0);
  expect(again.done).toBe(true);
});

it('does not wait for ever while somebody goes on working', async () => {
  asks();
  const seen = watched(quiet(1000, 5000));
  for (let at = 0; at < 4900; at += 100) {
    asks();
    await vi.advanceTimersByTimeAsync(100);
  }
  expect(seen.done).toBe(false);
  await vi.advanceTimersByTimeAsync(100);
  expect(seen.done).toBe(true);
});
