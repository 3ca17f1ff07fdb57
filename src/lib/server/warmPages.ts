/**
 * Asks for the main pages once before anybody can: what they need is then loaded, compiled and read. It goes over a socket of its own,
 * which nobody else knows, and ends after a while whatever comes.
 */
import { createServer, get, type RequestListener } from 'node:http';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

/** Milliseconds in all: a server that is slow to begin is better than one that does not. */
const AT_MOST = 6000;

const LISTS = ['/', '/learners', '/pieces', '/week'];
/** One page of each kind, as lists link to it. */
const LINKED = /href="(\/(?:learners|pieces|versions|assignments)\/[\w-]{8,})"/g;

/** Resolves with what a page says; '' where it says nothing. */
const read = (socketPath: string, path: string): Promise<string> =>
  new Promise((resolve) => {
    get({ socketPath, path, headers: { host: 'localhost', accept: 'text/html' } }, (response) => {
      let body = '';
      response.setEncoding('utf8');
      response.on('data', (part: string) => (body += part));
      response.on('end', () => resolve(body));
      response.on('error', () => resolve(''));
    }).on('error', () => resolve(''));
  });

async function readAll(socketPath: string): Promise<void> {
  const kinds = new Map<string, string>();
  const follow = async (path: string): Promise<void> => {
    for (const [, link] of (await read(socketPath, path)).matchAll(LINKED)) {
      const kind = link!.split('/')[1]!;
      if (!kinds.has(kind)) kinds.set(kind, link!);
    }
  };
  for (const path of LISTS) await follow(path);
  // A piece leads to its versions.
  for (const kind of ['learners', 'pieces', 'assignments', 'versions'])
    if (kinds.has(kind)) await follow(kinds.get(kind)!);
}

export async function warmPages(handler: RequestListener): Promise<void> {
  const folder = mkdtempSync(join(tmpdir(), 'keypath-'));
  const socketPath = join(folder, 'warm');
  const server = createServer(handler);
  try {
    await new Promise<void>((listening, failed) => {
      server.once('error', failed);
      server.listen(socketPath, listening);
    });
    await Promise.race([readAll(socketPath), new Promise((resolve) => setTimeout(resolve, AT_MOST).unref())]);
  } catch (error) {
    // Whoever comes first waits a little longer.
    console.error('The first pages could not be made ready:', error);
  } finally {
    server.closeAllConnections();
    server.close();
    rmSync(folder, { recursive: true, force: true });
  }
}
