import { InputError } from '$core/io/inputError';
import { db, generation } from '$server/db';
import { dataFolder } from '$server/db/open';
import { troubleOf } from '$server/db/trouble';
import { guarded } from '$server/guard/headers';
import { answeredHosts, hostSettings, isOpenToOthers } from '$server/guard/hosts';
import { GENERATION, isForAnother } from '$server/guard/generation';
import { continueSession } from '$server/guard/passphrase';
import { refusalOf, type Refusal } from '$server/guard/refusal';
import { SESSION_COOKIE, sessionCookie } from '$server/guard/cookie';
import { WorkStopped } from '$server/pool/work';
import { asks } from '$server/quiet';
import { whileOpen } from '$server/restoring';
import { start } from '$server/start';
import { DARK } from '$ui/shown/dark';
import { localeOf } from '$server/studio/locale';
import { SHOWN_COOKIE, shownFrom } from '$ui/shown/shown';
import { speakAs } from '$ui/text';
import { redirect, type Handle, type HandleServerError, type ServerInit } from '@sveltejs/kit';
import { resolve as absolute } from 'node:path';

export const init: ServerInit = start;

const hosts = answeredHosts(hostSettings());
const asksForPassphrase = isOpenToOthers(hostSettings());
/** What whoever is not signed in may see. */
const OPEN = ['/sign-in', '/robots.txt', '/generation', '/certificate.crt'];
/** A practice room lets in by its link, and needs the piano. */
const OPEN_UNDER = ['/room/', '/sounds/'];
const isOpen = (pathname: string): boolean =>
  OPEN.includes(pathname) || OPEN_UNDER.some((under) => pathname.startsWith(under));

const NOT_SIGNED_IN: Refusal = {
  status: 403,
  message: 'Your session has ended. Open the page again.',
};

/** A sentence for whoever reads it, as JSON for a script. */
const refused = ({ headers }: Request, { status, message }: Refusal): Response =>
  headers.get('accept')?.includes('text/html')
    ? new Response(message, { status, headers: { 'content-type': 'text/plain; charset=utf-8' } })
    : Response.json({ message }, { status });

const DARK_LINK = `<link rel="stylesheet" href="${DARK}" data-dark />`;

const OF_ANOTHER: Refusal = {
  status: 409,
  message: 'The studio was restored from a backup after this page was opened. Open the page again.',
};

/** Of a request whose work was stopped: it cannot be done as it was asked for. */
const STOPPED = 422;

/** It waits for all others to be answered, and so cannot wait among them. */
const RESTORE = '/settings/studio/restore';
/** A page that only looks whether it is still of this studio asks for nothing. */
const LOOK = '/generation';

export const handle: Handle = async ({ event, resolve }) => {
  const { pathname } = event.url;
  if (pathname !== LOOK) asks();
  const refusal = refusalOf(event.request, hosts);
  if (refusal) return guarded(refused(event.request, refusal));
  return pathname === RESTORE
    ? answered({ event, resolve })
    : whileOpen(async () => {
        const made = await answered({ event, resolve });
        // What was stopped at a limit is no fault of the server's, and says so with its status as well.
        const answer =
          event.locals.wasStopped && made.status === 500
            ? new Response(made.body, { status: STOPPED, headers: made.headers })
            : made;
        // What a browser keeps for good outlives the file.
        if (!answer.headers.get('cache-control')?.includes('immutable'))
          answer.headers.set(GENERATION, generation());
        return answer;
      });
};

async function answered({ event, resolve }: Parameters<Handle>[0]): Promise<Response> {
  if (isForAnother(event.request, generation())) return guarded(refused(event.request, OF_ANOTHER));
  if (asksForPassphrase && !isOpen(event.url.pathname)) {
    const token = event.cookies.get(SESSION_COOKIE);
    const session = token === undefined ? undefined : continueSession(db(), token);
    if (!session) {
      const reads = ['GET', 'HEAD'].includes(event.request.method);
      if (reads && !event.isDataRequest)
        redirect(303, `/sign-in?to=${encodeURIComponent(event.url.pathname + event.url.search)}`);
      return guarded(refused(event.request, NOT_SIGNED_IN));
    }
    if (session.next) event.cookies.set(SESSION_COOKIE, session.next, sessionCookie(event));
  }
  speakAs(localeOf(db()));
  const { theme } = shownFrom(event.cookies.get(SHOWN_COOKIE));
  return guarded(
    await resolve(event, {
      transformPageChunk: ({ html }) =>
        html
          .replace('%theme%', theme)
          .replace('%generation%', generation())
          .replace('%dark%', theme === 'light' ? '' : DARK_LINK),
    }),
  );
}

/** What went wrong is logged whole and told in one sentence. */
export const handleError: HandleServerError = ({ error: cause, event, status, message }) => {
  // Whoever asked has gone: nobody is waiting for an answer, and nothing went wrong.
  if (event.request.signal.aborted) return { message };
  if (cause instanceof InputError || cause instanceof WorkStopped) {
    event.locals.wasStopped = true;
    return { message: cause.message };
  }
  if (status >= 500) console.error(cause);
  const trouble = troubleOf(cause, absolute(dataFolder()));
  return { message: trouble ?? (status === 404 ? 'Page not found.' : message) };
};
