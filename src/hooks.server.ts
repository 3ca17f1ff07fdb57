import { InputError } from '$core/io/inputError';
import { error, type Handle, type HandleServerError } from '@sveltejs/kit';

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
export const handleError: HandleServerError = ({ error: cause, status, message }) => {
  if (cause instanceof InputError) return { message: cause.message };
  if (status >= 500) console.error(cause);
  return { message: status === 404 ? 'There is no such page.' : message };
};
