import { db } from '$server/db';
import { formOf } from '$server/forms';
import { SESSION_COOKIE, sessionCookie } from '$server/guard/cookie';
import { beginSession, endSession, hasPassphrase, isPassphrase } from '$server/guard/passphrase';
import { Tries } from '$server/guard/tries';
import { plural } from '$core/plural';
import { fail, redirect } from '@sveltejs/kit';
import { setTimeout } from 'node:timers/promises';
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
    const said = String((await formOf(event.request)).get('passphrase') ?? '');
    const { wait, isTooMany } = await tries.turn(from);
    if (isTooMany)
      return fail(429, {
        message: `Too many wrong passphrases from this address. Try again in ${plural(Math.ceil(wait / 1000), 'second')}.`,
      });
    await setTimeout(wait);
    if (!(await isPassphrase(db(), said.slice(0, 200))))
      return fail(403, { message: 'That passphrase isn’t right. Try again.' });
    await tries.right(from);
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
