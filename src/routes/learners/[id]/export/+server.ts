import { gone } from '$server/gone';
import { db } from '$server/db';
import { download } from '$server/download';
import { dossierOf, dossierText } from '$server/studio/dossier';
import { error } from '@sveltejs/kit';
import type { RequestHandler } from './$types';

/** Everything that is kept about a learner: as text to be read, or with `as=json` for another program. */
export const GET: RequestHandler = ({ params, url }) => {
  const dossier = dossierOf(db(), params.id);
  if (!dossier) error(404, gone('student'));
  return url.searchParams.get('as') === 'json'
    ? download(`${dossier.learner.name}.json`, 'application/json', `${JSON.stringify(dossier, null, 2)}\n`)
    : download(`${dossier.learner.name}.txt`, 'text/plain; charset=utf-8', dossierText(dossier));
};
