import { InputError } from '$core/io/inputError';
import { start } from '$server/start';
import { WorkStopped } from '$server/pool/work';
import { error, type Handle, type HandleServerError, type ServerInit } from '@sveltejs/kit';

export const init: ServerInit = start;

/**
 * Forms and saves are only taken from our own pages. The host is compared rather than the whole origin, since the
 * server does not know under which name and scheme it is reached (localhost, a name in the house, a proxy).
 */
export const handle: Handle = async ({ event, resolve }) => {
  const origin = event.request.headers.get('origin');
  const host = event.request.headers.get('host');
  const changes = !['GET', 'HEAD', 'OPTIONS'].includes(event.request.method);
  if (changes && origin && origin !== 'null' && new URL(origin).host !== host)
    error(403, 'This form was sent from another site.');
  return resolve(event);
};

/** What went wrong is logged whole and told in one sentence. */
export const handleError: HandleServerError = ({ error: cause, event, status, message }) => {
  // Whoever asked has gone: nobody is waiting for an answer, and nothing went wrong.
  if (event.request.signal.aborted) return { message };
  if (cause instanceof InputError || cause instanceof WorkStopped) return { message: cause.message };
  if (status >= 500) console.error(cause);
  return { message: status === 404 ? 'There is no such page.' : message };
};
