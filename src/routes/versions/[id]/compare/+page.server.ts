import { gone } from '$server/gone';
import { db } from '$server/db';
import { phraseAsked } from '$server/phraseAsked';
import { about, work } from '$server/pool';
import { drawn } from '$server/pool/drawn';
import { readable } from '$server/readable';
import { documentOfVersion, findVersion, listVersions } from '$server/studio/versions';
import { inRoom, SHOWN_COOKIE, shownFrom } from '$ui/shown/shown';
import { error } from '@sveltejs/kit';
import { versionName } from '$ui/piece/versionName';
import type { PageServerLoad } from './$types';

const SHOW = { width: 920, fingers: true, counts: false, chords: true };
/** Phrases of one page. */
const MOST = 6;

export const load: PageServerLoad = async ({ params, url, request, cookies }) => {
  const one = findVersion(db(), params.id);
  if (!one) error(404, gone('version'));
  const others = listVersions(db(), one.pieceId).filter((v) => v.id !== one.id);
  const other = others.find((v) => v.id === url.searchParams.get('with')) ?? others[0];
  const from = phraseAsked(url);
  const asked = about(one.pieceId, request);
  const compared =
    other &&
    (await readable(one.pieceId, () =>
      work(
        'compared',
        {
          pieceId: one.pieceId,
          documents: [documentOfVersion(db(), one), documentOfVersion(db(), other)] as const,
          show: inRoom(SHOW, shownFrom(cookies.get(SHOWN_COOKIE), request.headers.get('user-agent') ?? '')),
          from,
          to: from + MOST,
        },
        asked,
      ),
    ));
  const phrases = [];
  for (const { sheets, ...phrase } of compared?.phrases ?? [])
    phrases.push({ ...phrase, pictures: await drawn(sheets, asked) });
  return {
    version: { id: one.id, title: one.title, name: versionName(one) },
    other: other ? { id: other.id, name: versionName(other) } : null,
    others: others.map((v) => ({ id: v.id, name: versionName(v) })),
    phrases,
    from,
    most: MOST,
    count: compared?.count ?? 0,
  };
};
