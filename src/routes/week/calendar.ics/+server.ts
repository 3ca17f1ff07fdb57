import { db } from '$server/db';
import { download } from '$server/download';
import { studio } from '$server/db/schema';
import { calendarText } from '$server/studio/calendarFile';
import type { RequestHandler } from './$types';

/** The lessons of the studio, or with ?of= those of a learner or a class, for a calendar program. */
export const GET: RequestHandler = ({ url }) => {
  const name = db().select({ name: studio.name }).from(studio).get()?.name ?? 'Piano lessons';
  return download(
    'lessons.ics',
    'text/calendar; charset=utf-8',
    calendarText(db(), name, url.searchParams.get('of') ?? undefined),
  );
};
