/** The page's end of the worker. One worker serves the page for as long as it is open: the engraver is compiled once. */
import { proxy, wrap, type Remote } from 'comlink';
import type { MusicService } from './music.worker';
import type { Listener } from './engine';

let running: Remote<MusicService> | undefined;

/** The worker, started on first use. Browser only. */
export function service(): Remote<MusicService> {
  running ??= wrap<MusicService>(
    new Worker(new URL('./music.worker.ts', import.meta.url), { type: 'module' }),
  );
  return running;
}

/** Lets the worker call back. */
export const listening = (listener: Listener): Listener => proxy({ ...listener });
