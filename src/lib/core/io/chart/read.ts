/** Chord charts: ChordPro where brackets or directives say so, plain text otherwise. */
import { notTooLong } from '../limits';
import type { ReadResult } from '../readResult';
import { readChordPro } from '../private/chart/readChordPro';
import { readPlainChart } from '../private/chart/readPlain';
import { chartToScore } from '../private/chart/toScore';
import { isChordRow, sectionName, signOf, tokensOf } from '../private/chart/words';

const HAS_DIRECTIVES = /^\s*\{\s*[a-zA-Z_]+\s*[:}\s]/m;

/** Whether a text has chords in brackets or directives in braces. */
export function isChordPro(text: string): boolean {
  if (HAS_DIRECTIVES.test(text)) return true;
  const brackets = [...text.matchAll(/\[([^\]\n]{1,20})\]/g)].map((m) => m[1]!.trim());
  return brackets.some((b) => signOf(b)?.kind === 'chord' && !sectionName(`[${b}]`));
}

/** Whether a text without directives looks like a chart at all: a row of chords, and more than one sign in all of them. */
export function isPlainChart(text: string): boolean {
  const rows = text
    .split('\n')
    .slice(0, 400)
    .flatMap((row) => [row, sectionName(row)?.rest ?? '?'])
    .filter(isChordRow);
  return rows.flatMap(tokensOf).length > 1;
}

/** Reads a chart. Throws InputError where it holds no chords or is beyond measure. */
export function readChart(text: string): ReadResult {
  notTooLong(text);
  const clean = text.replace(/^\uFEFF/, '').replace(/\r\n?/g, '\n');
  const warnings: string[] = [];
  const chart = isChordPro(clean) ? readChordPro(clean, warnings) : readPlainChart(clean, warnings);
  return chartToScore(chart, warnings);
}
