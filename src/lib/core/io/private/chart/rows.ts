/** A row of chords and the row of words below it. */
import type { ChartItem } from '../../chart/chart';
import { signInRow, tokensOf } from './words';

/**
 * Signs of a row with the words below: each word belongs to the last sign that stands at or before its beginning. A chord
 * that stands inside a word parts it there; a slash does not.
 */
export function rowItems(row: string, below: string): ChartItem[] {
  const tokens = tokensOf(row).map(({ token, column }) => ({ what: signInRow(token), column }));
  const words = new Array<string>(tokens.length).fill('');
  const holder = (column: number): number =>
    Math.max(
      0,
      tokens.findLastIndex((t) => t.column <= column && t.what.kind !== 'bar'),
    );
  for (const match of below.matchAll(/\S+\s*/g)) {
    const word = match[0];
    const begin = match.index;
    const inside = tokens
      .filter(
        ({ what, column }) =>
          (what.kind === 'chord' || what.kind === 'unknown') &&
          column > begin &&
          column < begin + word.trimEnd().length,
      )
      .map((t) => t.column);
    [begin, ...inside].forEach((from, i) => {
      const to = inside[i] ?? begin + word.length;
      words[holder(from)] += below.slice(from, to);
    });
  }
  return tokens.map(({ what }, i): ChartItem => ({ what, words: words[i]! }));
}
