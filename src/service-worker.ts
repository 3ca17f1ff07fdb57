/// <reference types="@sveltejs/kit" />
/// <reference lib="webworker" />
/**
 * Keeps practice rooms for when there is no network. It serves pages under /room/ alone: what never changes comes from what is kept, a
 * room's page from the server where that answers and else as it was seen last. What a room tells is never kept here: its own queue does that.
 */
import { build, files, version } from '$service-worker';
import { z } from 'zod';

const worker = globalThis as unknown as ServiceWorkerGlobalScope;
const CACHE = `room ${version}`;
/** Of this build: their names change with their content. */
const LASTING = new Set([...build, ...files]);
/** Recordings of the piano: they never change. */
const isLasting = (pathname: string): boolean => LASTING.has(pathname) || pathname.startsWith('/sounds/');
const isRoom = (pathname: string): boolean => /^\/room\/[\w-]{22}(\/__data\.json)?$/.test(pathname);

worker.addEventListener('install', () => void worker.skipWaiting());

worker.addEventListener('activate', (event) => {
  const tidy = async (): Promise<void> => {
    for (const name of await caches.keys()) if (name !== CACHE) await caches.delete(name);
    await worker.clients.claim();
  };
  event.waitUntil(tidy());
});

const keepSchema = z.object({ keep: z.array(z.string()).max(2000) });

worker.addEventListener('message', (event) => {
  const wanted = keepSchema.safeParse(event.data).data?.keep ?? [];
  const keep = async (): Promise<void> => {
    const cache = await caches.open(CACHE);
    for (const name of wanted) {
      const { pathname, origin } = new URL(name, worker.location.origin);
      if (origin !== worker.location.origin || !(isLasting(pathname) || isRoom(pathname))) continue;
      if (!isRoom(pathname) && (await cache.match(pathname))) continue;
      const response = await fetch(pathname);
      if (response.ok) await cache.put(pathname, response);
    }
  };
  event.waitUntil(keep());
});

/** What is kept, else from the network and then kept. */
async function lasting(request: Request, pathname: string): Promise<Response> {
  const cache = await caches.open(CACHE);
  const kept = await cache.match(pathname);
  if (kept) return kept;
  const response = await fetch(request);
  if (response.ok) await cache.put(pathname, response.clone());
  return response;
}

/** From the network, and where that fails as it was seen last. */
async function freshest(request: Request, pathname: string): Promise<Response> {
  const cache = await caches.open(CACHE);
  try {
    const response = await fetch(request);
    if (response.ok) await cache.put(pathname, response.clone());
    return response;
  } catch (error) {
    const kept = await cache.match(pathname);
    if (kept) return kept;
    throw error;
  }
}

worker.addEventListener('fetch', (event) => {
  const { request } = event;
  const { origin, pathname } = new URL(request.url);
  if (request.method !== 'GET' || origin !== worker.location.origin) return;
  if (isLasting(pathname)) event.respondWith(lasting(request, pathname));
  else if (isRoom(pathname)) event.respondWith(freshest(request, pathname));
});
