/** How the studio writes dates, times and notes, and on which paper: one setting of it. */
import { LANGUAGES, localeSchema, proposedLocale, USUAL_LOCALE, type Locale } from '$core/locale';
import { eq } from 'drizzle-orm';
import type { Db } from '../db/open';
import { studio } from '../db/schema';

const chosenIn = (db: Db): Locale | undefined => {
  const kept = db.select({ locale: studio.locale }).from(studio).get()?.locale;
  const parsed = localeSchema.safeParse(kept ?? undefined);
  return parsed.success ? parsed.data : undefined;
};

export const localeOf = (db: Db): Locale => chosenIn(db) ?? USUAL_LOCALE;
export const isLocaleChosen = (db: Db): boolean => chosenIn(db) !== undefined;

export function setLocale(db: Db, locale: Locale): void {
  if (db.select({ id: studio.id }).from(studio).get())
    db.update(studio).set({ locale }).where(eq(studio.id, 1)).run();
  else db.insert(studio).values({ id: 1, name: 'Your studio', locale }).run();
}

/** The first language that a browser asks for. */
export const languageAsked = (acceptLanguage: string | null): string =>
  acceptLanguage?.split(',')[0]?.split(';')[0]?.trim() ?? '';

/** What is offered, and what goes for most in the language that the browser asks for. */
export const localeOffer = (db: Db, acceptLanguage: string | null) => ({
  locale: localeOf(db),
  proposed: proposedLocale(languageAsked(acceptLanguage)),
  languages: LANGUAGES,
});
