import { db } from '$server/db';
import { formOf } from '$server/forms';
import { SESSION_COOKIE, sessionCookie } from '$server/guard/cookie';
import { beginSession, endSession, hasPassphrase, isPassphrase, Tries } from '$server/guard/passphrase';
import { fail, redirect } from '@sveltejs/kit';
import type { Actions, PageServerLoad } from './$types';

const tries = new Tries();

export const load: PageServerLoad = () => ({ hasPassphrase: hasPassphrase(db()) });

/** A page of our own to go on to; never another site. */
function goOn(to: string | null): string {
  const base = 'http://own.invalid';
  const url = to !== null && URL.canParse(to, base) ? new URL(to, base) : undefined;
  return url?.origin === base && !url.pathname.startsWith('//') ? url.pathname + url.search : '/';
}

export const actions: Actions = {
  enter: async (event) => {
    const from = event.getClientAddress();
    const wait = tries.wait(from);
    if (wait > 0)
      return fail(429, {
        message: `Too many tries. Try again in ${wait} ${wait === 1 ? 'minute' : 'minutes'}.`,
      });
    const said = String((await formOf(event.request)).get('passphrase') ?? '');
    // Counted before it is checked: many at once are as many tries.
    tries.failed(from);
    if (!(await isPassphrase(db(), said.slice(0, 200))))
      return fail(403, { message: 'This is not the studio’s passphrase.' });
    tries.forget(from);
    const before = event.cookies.get(SESSION_COOKIE);
    if (before !== undefined) endSession(db(), before);
    event.cookies.set(SESSION_COOKIE, beginSession(db()), sessionCookie(event));
    redirect(303, goOn(event.url.searchParams.get('to')));
  },
  leave: ({ cookies }) => {
    const token = cookies.get(SESSION_COOKIE);
    if (token !== undefined) endSession(db(), token);
    cookies.delete(SESSION_COOKIE, { path: '/' });
    redirect(303, '/sign-in');
  },
};
