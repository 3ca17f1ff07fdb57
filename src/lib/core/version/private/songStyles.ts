/** Where a version plays its melody, and where it accompanies a singer. */
import { inInstrumental, type Instrumental } from '../../analysis/instrumentals';
import type { SongStyle } from '../../arrange/arranged';
import { endOf } from '../../score/metre';
import { measureAt } from '../../score/query';
import type { Measure, Score } from '../../score/score';
import type { Recipe } from '../recipe';

/**
 * What the hands do in each measure: as it is decided; else as the version has it, but that the players play where the singer rests, and
 * where there is music and no chord to sing to.
 */
export function stylesOf(
  { style }: Recipe,
  { measures, parts, chordSymbols }: Score,
  runs: readonly Instrumental[],
  decided: readonly (SongStyle | undefined)[],
): readonly SongStyle[] {
  const struck = new Set(
    parts.flatMap((p) => p.notes.filter((n) => !n.cue).map((n) => measureAt(measures, n.onset).index)),
  );
  const isWithoutChord = (m: Measure): boolean =>
    m.beginsAt === 0 &&
    (chordSymbols.findLast((s) => s.onset <= m.start)?.chord ?? null) === null &&
    !chordSymbols.some((s) => s.onset > m.start && s.onset < endOf(m) && s.chord);
  return measures.map(
    (m, i) =>
      decided[i] ??
      (style === 'sing-along' && struck.has(i) && (inInstrumental(runs, i) || isWithoutChord(m))
        ? 'solo'
        : style),
  );
}
