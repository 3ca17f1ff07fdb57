import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { Frames } from './frames';

let now = 0;
let frames: (() => void)[] = [];
beforeEach(() => {
  now = 0;
  frames = [];
  vi.stubGlobal('requestAnimationFrame', (callback: () => void) => frames.push(callback));
  vi.stubGlobal('setTimeout', (callback: () => void) => callback());
  vi.spyOn(performance, 'now').mockImplementation(() => now);
});
afterEach(() => {
  vi.unstubAllGlobals();
  vi.restoreAllMocks();
});
const nextFrame = (): void => frames.splice(0).forEach((frame) => frame());

it('shows what is in sight in a frame of its own', () => {
  const seen: string[] = [];
  const waiting = new Frames();
  for (const name of ['a', 'b', 'c']) waiting.put(name, () => seen.push(name));
  expect(seen).toEqual(['a']);
  nextFrame();
  expect(seen).toEqual(['a', 'b']);
  nextFrame();
  expect(seen).toEqual(['a', 'b', 'c']);
});

it('shows as much of what is out of sight as a frame has time for', () => {
  const seen: string[] = [];
  const waiting = new Frames();
  waiting.put('here', () => seen.push('here'));
  for (const name of ['1', '2', '3', '4', '5', '6'])
    waiting.put(
      name,
      () => {
        seen.push(name);
        now += 4;
      },
      false,
    );
  nextFrame();
  // Three of four milliseconds each pass the ten that a frame has.
  expect(seen).toEqual(['here', '1', '2', '3']);
  nextFrame();
  expect(seen).toEqual(['here', '1', '2', '3', '4', '5', '6']);
});

it('does not show what was overtaken while it waited, and can tell when all is shown', async () => {
  const seen: string[] = [];
  const waiting = new Frames();
  waiting.put('first', () => seen.push('first'));
  waiting.put('again', () => seen.push('old'));
  waiting.put('again', () => seen.push('new'));
  let isShown = false;
  const shown = waiting.shown().then(() => (isShown = true));
  await Promise.resolve();
  expect(isShown).toBe(false);
  for (let i = 0; i < 4; i++) {
    nextFrame();
    await Promise.resolve();
    await Promise.resolve();
  }
  await shown;
  expect(seen).toEqual(['first', 'new']);
});
