import { db } from '$server/db';
import { studio } from '$server/db/schema';
import { localeOf } from '$server/studio/locale';
import type { LayoutServerLoad } from './$types';

export const load: LayoutServerLoad = () => ({
  studio: db().select({ name: studio.name }).from(studio).get()?.name ?? 'Your studio',
  locale: localeOf(db()),
});
