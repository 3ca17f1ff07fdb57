import { writePlainChart } from '$core/io/chart/write';
import { keyName } from '$core/theory/key';
import { inAllKeys } from '$core/transpose/allKeys';
import { db } from '$server/db';
import { findPiece } from '$server/studio/pieces';
import { preparedPiece } from '$server/studio/prepared';
import { error } from '@sveltejs/kit';
import type { PageServerLoad } from './$types';

/** A chart without the lines that name what the page names already. */
const bodyOf = (chart: string): string => chart.slice(chart.indexOf('\n\n') + 2).trimEnd();

export const load: PageServerLoad = ({ params }) => {
  const piece = findPiece(db(), params.id);
  if (!piece) error(404, 'There is no such piece.');
  return {
    piece: { id: piece.id, title: piece.title, rights: piece.rights },
    charts: inAllKeys(preparedPiece(db(), piece.id).score).map(({ key, score }) => ({
      key: keyName(key),
      text: bodyOf(writePlainChart(score)),
    })),
  };
};
