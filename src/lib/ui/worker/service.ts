/** The page's end of the worker. One worker serves the page for as long as it is open: the engraver is compiled once. */
import { noteNaming } from '$core/theory/noteNames';
import { proxy, wrap, type Remote } from 'comlink';
import type { MusicService } from './music.worker';
import type { Listener } from './engine';

let running: Remote<MusicService> | undefined;

/** The worker, started on first use. Browser only. */
export function service(): Remote<MusicService> {
  if (running) return running;
  running = wrap<MusicService>(new Worker(new URL('./music.worker.ts', import.meta.url), { type: 'module' }));
  // The worker speaks as the page does.
  if (noteNaming() !== 'letters') void running.name(noteNaming());
  return running;
}

/** Lets the worker call back. */
export const listening = (listener: Listener): Listener => proxy({ ...listener });
