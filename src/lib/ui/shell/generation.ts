/**
 * Open pages are told when another file takes the place of the studio's: they reload before they show or change anything of what was there.
 * Every answer names the generation of the file, and whatever a page sends names the one that the page was opened on.
 */

import { WINDOW_HEADER, windowId } from './window';

/** As the server has it (server/guard/generation.ts). */
const HEADER = 'x-keypath-generation';
/** Milliseconds between two looks of a page that asks nothing else. */
const LOOK = 5000;
const CHANNEL = 'keypath studio';
const NOTICE = 'keypath notice';
/** It shows the answer before the page goes on. */
const RESTORE = '/settings/studio/restore';

let isReloading = false;

/** Whether the page is about to be loaded anew: what is typed is kept, and nobody needs to be asked. */
export const reloads = (): boolean => isReloading;

/** The page that restores a backup is told by its own answer: what it sees of it earlier reloads nothing. */
let isRestoring = false;
export const restoring = (now: boolean): void => void (isRestoring = now);

/** Loads the page anew; the notice is shown on it. Other windows of this browser are told. */
export function reloadWith(notice: string, isFirst = false): void {
  if (isReloading) return;
  isReloading = true;
  try {
    sessionStorage.setItem(NOTICE, notice);
  } catch (error) {
    console.warn('This browser can’t store anything:', error);
  }
  if (isFirst) new BroadcastChannel(CHANNEL).postMessage('restored');
  location.reload();
}

/** What the page before had to say, once. */
export function notice(): string | undefined {
  try {
    const text = sessionStorage.getItem(NOTICE) ?? undefined;
    sessionStorage.removeItem(NOTICE);
    return text;
  } catch {
    return undefined;
  }
}

const RESTORED = 'The studio was restored from a backup. You now see what is in it.';

/** Watches every answer, and looks now and then while the page is seen. */
export function watchGeneration(): void {
  const own = document.documentElement.dataset.generation;
  if (!own) return;
  const plain = window.fetch;
  window.fetch = async (input, init) => {
    const url = new URL(input instanceof Request ? input.url : input, location.href);
    if (url.origin !== location.origin) return plain(input, init);
    const headers = new Headers(init?.headers ?? (input instanceof Request ? input.headers : undefined));
    headers.set(HEADER, own);
    headers.set(WINDOW_HEADER, windowId());
    const response = await plain(input, { ...init, headers });
    const now = response.headers.get(HEADER);
    if (now === null || now === own || url.pathname === RESTORE || isRestoring) return response;
    reloadWith(RESTORED);
    // Nothing of it belongs on this page.
    return new Promise<never>(() => undefined);
  };
  const look = (): void => {
    if (document.visibilityState === 'visible')
      void window.fetch('/generation', { cache: 'no-store' }).catch(() => undefined);
  };
  setInterval(look, LOOK);
  document.addEventListener('visibilitychange', look);
  addEventListener('pageshow', (event) => event.persisted && look());
  new BroadcastChannel(CHANNEL).addEventListener('message', look);
}
