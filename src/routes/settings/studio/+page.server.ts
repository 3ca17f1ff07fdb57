import { lineText } from '$core/plainText';
import { isTimeZone, timeZones } from '$core/lessons/calendar';
import { db } from '$server/db';
import { changeZone, zoneOf } from '$server/studio/clock';
import { dataFolder } from '$server/db/open';
import { formOf, readForm } from '$server/forms';
import { meanwhile, wasIn } from '$server/meanwhile';
import { hostSettings, isOpenToOthers } from '$server/guard/hosts';
import { beginSession, hasPassphrase, passphraseSchema, setPassphrase } from '$server/guard/passphrase';
import { SESSION_COOKIE, sessionCookie } from '$server/guard/cookie';
import { localeSchema } from '$core/locale';
import { nameNotesAs } from '$core/theory/noteNames';
import { localeOffer, setLocale } from '$server/studio/locale';
import { copiesIn } from '$server/studio/copies';
import { nameStudio, studioNamed } from '$server/studio/paper';
import { deleteForGood, discard, KEPT_DAYS, listTrash, takeBack, thingSchema } from '$server/studio/trash';
import { fail, redirect } from '@sveltejs/kit';
import { resolve } from 'node:path';
import { z } from 'zod';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = ({ request }) => ({
  offer: localeOffer(db(), request.headers.get('accept-language')),
  folder: resolve(dataFolder()),
  copies: copiesIn(dataFolder()),
  trash: listTrash(db()),
  keptDays: KEPT_DAYS,
  zone: zoneOf(db()),
  named: studioNamed(db()),
  zones: timeZones(),
  hasPassphrase: hasPassphrase(db()),
  isOpen: isOpenToOthers(hostSettings()),
});

/** Where one goes on after something was put in the trash: its own page is not there any more. */
const AFTER = { piece: '/pieces', learner: '/learners', version: undefined, lesson: undefined } as const;

const GONE = 'This isn’t in the trash any more.';

/** Does something with a thing that a form names. */
async function withThing(
  request: Request,
  act: (kind: z.infer<typeof thingSchema>['kind'], id: string) => boolean,
) {
  const form = readForm(await formOf(request), thingSchema);
  return form.ok && act(form.data.kind, form.data.id) ? form.data : undefined;
}

const namedSchema = z.object({
  name: lineText().min(1, 'A studio needs a name.').max(60, 'Keep the name under 60 letters.'),
  ownLine: lineText().max(100, 'Keep the line under 100 letters.'),
});

const localeFormSchema = localeSchema.extend({
  zone: z.string().refine(isTimeZone, 'Choose one of the time zones offered.'),
});

export const actions: Actions = {
  /** What the studio is called, in the header and at the foot of every printed page. */
  named: async ({ request }) => {
    const sent = await formOf(request);
    const form = readForm(sent, namedSchema);
    if (!form.ok) return fail(422, { message: Object.values(form.problems).join(' ') });
    const was = wasIn(sent, namedSchema);
    const met = nameStudio(db(), form.data, was);
    return met
      ? meanwhile(
          met,
          was,
          (field, there) => `the ${field === 'name' ? 'name' : 'line'} is “${there[field]}”`,
        )
      : { message: '' };
  },
  /** How dates, times and notes are written, on which paper, and in which time zone lessons are. */
  locale: async ({ request }) => {
    const sent = await formOf(request);
    const form = readForm(sent, localeFormSchema);
    if (!form.ok) return fail(422, { message: Object.values(form.problems).join(' ') });
    const { zone, ...locale } = form.data;
    const there = changeZone(db(), zone, wasIn(sent, z.object({ zone: z.string() })).zone);
    if (there !== null)
      return fail(409, {
        message: `The time zone was changed in another window to ${there.replaceAll('_', ' ')}. Choose ${zone.replaceAll('_', ' ')} again to use it.`,
      });
    setLocale(db(), locale);
    nameNotesAs(locale.noteNames);
    return { message: '' };
  },
  discard: async ({ request }) => {
    const thing = await withThing(request, (kind, id) => discard(db(), kind, id));
    if (!thing) return fail(404, { message: GONE });
    const back = request.headers.get('referer');
    const isOwnPage = back && new URL(back).pathname.includes(`/${thing.id}`);
    redirect(303, isOwnPage || !back ? (AFTER[thing.kind] ?? '/pieces') : new URL(back).pathname);
  },
  takeBack: async ({ request }) =>
    (await withThing(request, (kind, id) => takeBack(db(), kind, id))) ? {} : fail(404, { message: GONE }),
  deleteForGood: async ({ request }) =>
    (await withThing(request, (kind, id) => deleteForGood(db(), kind, id)))
      ? {}
      : fail(404, { message: GONE }),
  passphrase: async (event) => {
    const form = readForm(await formOf(event.request), z.object({ passphrase: passphraseSchema }));
    if (!form.ok) return fail(422, { message: Object.values(form.problems).join(' ') });
    await setPassphrase(db(), form.data.passphrase);
    event.cookies.set(SESSION_COOKIE, beginSession(db()), sessionCookie(event));
    return { message: '', isSet: true };
  },
};
