/** The music of a piece as its pages show it. Runs in the pool. */
import type { ChartItem, ChartLine } from '$core/io/chart/chart';
import { scoreToChart } from '$core/io/chart/fromScore';
import { chordSymbol } from '$core/theory/chord';
import { writeChordPro } from '$core/io/chart/write';
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

/** A measure of a chart as it is set: its signs in turn, each with the words that are sung from it on. */
interface SetMeasure {
  readonly signs: readonly { readonly sign: string; readonly words: string }[];
  readonly repeatStart: boolean;
  readonly repeatEnd: boolean;
}
interface SetChart {
  readonly key: string;
  readonly sections: readonly { readonly name: string; readonly lines: readonly (readonly SetMeasure[])[] }[];
}

const signOf = ({ what }: ChartItem): string =>
  what.kind === 'chord'
    ? what.chord
      ? chordSymbol(what.chord)
      : 'N.C.'
    : what.kind === 'beat'
      ? '/'
      : what.kind === 'unknown'
        ? what.name
        : '';

/** A line of a chart measure by measure: barlines part them. */
function measuresIn({ items }: ChartLine): SetMeasure[] {
  const measures: SetMeasure[] = [];
  let signs: { sign: string; words: string }[] = [];
  let repeatStart = false;
  for (const item of items) {
    if (item.what.kind !== 'bar') {
      signs.push({ sign: signOf(item), words: item.words });
      continue;
    }
    if (signs.length > 0) measures.push({ signs, repeatStart, repeatEnd: item.what.repeatEnd === true });
    [signs, repeatStart] = [[], item.what.repeatStart === true];
  }
  return signs.length > 0 ? [...measures, { signs, repeatStart, repeatEnd: false }] : measures;
}

/** The chords of a piece in all twelve keys, ready to be set. */
export const chartsInAllKeys = (db: Db, pieceId: string): SetChart[] =>
  inAllKeys(preparedPiece(db, pieceId).score).map(({ key, score }) => ({
    key: keyName(key),
    sections: scoreToChart(score).sections.map(({ name, lines }) => ({ name, lines: lines.map(measuresIn) })),
  }));

/** The same as one file, as songs follow each other in a book. */
export const songbookInAllKeys = (db: Db, pieceId: string): string =>
  inAllKeys(preparedPiece(db, pieceId).score)
    .map(({ score }) => writeChordPro(score))
    .join('{new_song}\n');
