/** The cookie of a session. */
import { SESSION } from './passphrase';
import type { Cookies, RequestEvent } from '@sveltejs/kit';

export const SESSION_COOKIE = 'keypath_session';

/**
 * No script reads it and no other site sends it; over TLS it never goes without. The server itself speaks plain HTTP: a proxy says in
 * X-Forwarded-Proto, or ORIGIN, whether there is TLS in front. In seconds, as long as a session is good.
 */
export const sessionCookie = ({ request }: Pick<RequestEvent, 'request'>): Parameters<Cookies['set']>[2] => ({
  path: '/',
  httpOnly: true,
  sameSite: 'lax',
  secure:
    request.headers.get('x-forwarded-proto') === 'https' || (process.env.ORIGIN ?? '').startsWith('https:'),
  maxAge: SESSION.good * 3600,
});
