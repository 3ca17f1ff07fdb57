/** The chords of a measure in a line, as a teacher writes them: "C Am7" spread evenly, "C . G7 ." place by place. */
import { endOf } from './metre';
import type { ChordSymbol, Measure } from './score';
import { chordSymbol, type Chord } from '../theory/chord';
import { parseChord } from '../theory/chordName';

/** A place that keeps the chord before it. */
const STAYS = '.';

/** One sign a place: a chord, null for "no chord", undefined where the one before stays. Undefined for what is no row of chords. */
export function readChordRow(text: string): (Chord | null | undefined)[] | undefined {
  const tokens = text.trim().split(/[\s|]+/);
  const row = tokens.map((token) => (token === STAYS || token === '/' ? STAYS : parseChord(token)));
  if (text.trim() === '' || row.includes(undefined)) return undefined;
  return row.map((sign) => (sign === STAYS ? undefined : (sign as Chord | null)));
}

/** A row as it is written. */
export const chordRowText = (row: readonly (Chord | null | undefined)[]): string =>
  row.map((chord) => (chord === undefined ? STAYS : chord === null ? 'N.C.' : chordSymbol(chord))).join(' ');

/** The symbols of a row, spread evenly over its measure; none for what is no row. */
export function symbolsOfRow(
  text: string,
  { start, length }: Pick<Measure, 'start' | 'length'>,
): ChordSymbol[] {
  const row = readChordRow(text) ?? [];
  return row.flatMap((chord, i): ChordSymbol[] =>
    chord === undefined ? [] : [{ onset: start + Math.round((i * length) / row.length), chord }],
  );
}

/** Symbols with those of one measure replaced by a row; the chord that stood over its end goes on behind it. */
export function withChordRow(
  symbols: readonly ChordSymbol[],
  text: string,
  measure: Measure,
  isLast: boolean,
): ChordSymbol[] {
  const [start, end] = [measure.start, endOf(measure)];
  const stood = symbols.findLast((s) => s.onset < end);
  const goesOn =
    stood && !isLast && !symbols.some((s) => s.onset === end) ? [{ onset: end, chord: stood.chord }] : [];
  return [
    ...symbols.filter((s) => s.onset < start),
    ...symbolsOfRow(text, measure),
    ...goesOn,
    ...symbols.filter((s) => s.onset >= end),
  ];
}
