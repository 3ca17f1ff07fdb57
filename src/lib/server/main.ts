/**
 * The server as it is started: says in one sentence what is wrong where it cannot serve, and ends with a status of its own. It listens
 * to this computer alone unless HOST says otherwise.
 */
import { createServer, type IncomingMessage, type ServerResponse } from 'node:http';
import { createServer as createSecureServer } from 'node:https';
import { platform } from 'node:os';
import { pathToFileURL } from 'node:url';
import { resolve } from 'node:path';
import { setFlagsFromString } from 'node:v8';
import { dataFolder } from './db/open';
import { answeredHosts, hostSettings } from './guard/hosts';
import { TlsProblem, tlsOf, tlsSettings } from './tls';
import { warmPages } from './warmPages';

/** Of the heap of this thread, which only answers. */
const MEGABYTES = 160;

const host = process.env.HOST ?? '127.0.0.1';
const port = Number(process.env.PORT ?? 5180);
// The largest body that is read at all: a copy of a studio. Everything else is far smaller (hooks.server.ts).
process.env.BODY_SIZE_LIMIT = '2G';

// What pages leave behind is swept before it grows: the work itself has threads with limits of their own (pool.ts).
setFlagsFromString(`--max-old-space-size=${MEGABYTES}`);

/** As in sysexits.h: the address cannot be used; the studio cannot be used. */
const STATUS = { address: 69, studio: 74, unknown: 70 };

function end(sentence: string, status: number): never {
  console.error(`Key Path: ${sentence}`);
  process.exit(status);
}

const LISTENING: Readonly<Record<string, string>> = {
  EADDRINUSE: `Port ${port} is in use. Stop what uses it, or name another one in PORT.`,
  EACCES: `Port ${port} isn’t allowed for this user. Name one above 1023 in PORT.`,
  EADDRNOTAVAIL: `This computer has no address ${host}. Set HOST to one that it has.`,
  ENOTFOUND: `There is no address ${host}. Name one of this computer's own in HOST.`,
};

if (!Number.isInteger(port) || port < 0 || port > 65_535)
  end(`“${process.env.PORT}” isn’t a port. Set PORT to a number up to 65535.`, STATUS.address);

/** What ORIGIN says has to be an address without a path: the adapter would end with a stack. */
const origin = process.env.ORIGIN;
const isAddress = (text: string): boolean =>
  URL.canParse(text) &&
  /^https?:$/.test(new URL(text).protocol) &&
  new URL(text).origin === text.replace(/\/$/, '');
if (origin !== undefined && origin !== '' && !isAddress(origin))
  end(`“${origin}” in ORIGIN isn’t an address. Write it like https://piano.example.`, STATUS.address);

type Handler = (request: IncomingMessage, response: ServerResponse, next: () => void) => void;

/** Opens the studio, and gives what answers. It is asked for before the port, so that the first request finds a studio. */
async function handlerOf(): Promise<Handler> {
  const built = pathToFileURL(resolve(process.env.KEYPATH_BUILD ?? 'build', 'handler.js')).href;
  try {
    return ((await import(built)) as { handler: Handler }).handler;
  } catch (error) {
    if (error instanceof Error && error.name === 'StudioProblem') end(error.message, STATUS.studio);
    console.error(error);
    end('Key Path couldn’t start; see the message above.', STATUS.unknown);
  }
}

/** The names in a certificate: an address in brackets stands there without them. */
const namesOf = (): string[] =>
  [...answeredHosts(hostSettings())].map((name) => name.replace(/^\[|\]$/g, ''));

const tls = await tlsOf(tlsSettings(), resolve(dataFolder()), namesOf()).catch((error: unknown) => {
  if (error instanceof TlsProblem) end(error.message, STATUS.address);
  throw error;
});

const handler = await handlerOf();
const answer = (request: IncomingMessage, response: ServerResponse): void => {
  // Where TLS ends here, what a client says of its way is not asked.
  if (tls) request.headers['x-forwarded-proto'] = 'https';
  handler(request, response, () => {
    response.statusCode = 404;
    response.end();
  });
};
if (platform() !== 'win32') await warmPages(answer);
const server = tls ? createSecureServer(tls, answer) : createServer(answer);
await new Promise<void>((listening) => {
  server.once('error', (error: NodeJS.ErrnoException) =>
    end(LISTENING[error.code ?? ''] ?? error.message, STATUS.address),
  );
  server.listen(port, host, listening);
});
console.log(
  `Key Path listens on ${tls ? 'https' : 'http'}://${host.includes(':') ? `[${host}]` : host}:${port}`,
);

for (const signal of ['SIGINT', 'SIGTERM'] as const)
  process.once(signal, () => {
    server.close(() => process.exit(0));
    server.closeIdleConnections();
    // What is still being answered has so long, in milliseconds.
    setTimeout(() => process.exit(0), 3000).unref();
  });
