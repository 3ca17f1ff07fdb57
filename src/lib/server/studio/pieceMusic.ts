/** The music of a piece as its pages show it. Runs in the pool. */
import { writeChordPro, writePlainChart } from '$core/io/chart/write';
import { keyName } from '$core/theory/key';
import { inAllKeys } from '$core/transpose/allKeys';
import { analysed } from '$core/version/analysed';
import type { Sheet } from '$lib/engrave/sheet';
import { sourceSheet } from '$lib/engrave/sourceSheet';
import type { Db } from '../db/open';
import { preparedPiece } from './prepared';

/** Most measures drawn at once. */
const MOST = 12;

/** A few measures of the source, ready to be engraved, with chord names above them; undefined where they are not in the piece. */
export function sourceMeasures(
  db: Db,
  {
    pieceId,
    from,
    to,
    width,
  }: { readonly pieceId: string; readonly from: number; readonly to: number; readonly width: number },
): Sheet | undefined {
  const { score } = preparedPiece(db, pieceId);
  const last = score.measures.length - 1;
  if (from > to || from > last) return undefined;
  // Chords as the piece names them, or as they are heard in it.
  const chordSymbols = analysed(score).chords.flatMap(({ onset, chord }) =>
    chord ? [{ onset, chord }] : [],
  );
  return sourceSheet({ ...score, chordSymbols }, width, { from, to: Math.min(last, to, from + MOST - 1) });
}

/** A chart without the lines that name what the page names already. */
const bodyOf = (chart: string): string => chart.slice(chart.indexOf('\n\n') + 2).trimEnd();

/** The chords of a piece in all twelve keys, as text. */
export const chartsInAllKeys = (db: Db, pieceId: string): { key: string; text: string }[] =>
  inAllKeys(preparedPiece(db, pieceId).score).map(({ key, score }) => ({
    key: keyName(key),
    text: bodyOf(writePlainChart(score)),
  }));

/** The same as one file, as songs follow each other in a book. */
export const songbookInAllKeys = (db: Db, pieceId: string): string =>
  inAllKeys(preparedPiece(db, pieceId).score)
    .map(({ score }) => writeChordPro(score))
    .join('{new_song}\n');
