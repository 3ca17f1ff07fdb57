/** Pickups inside a piece: the notes at the end of a measure that belong to what begins after the barline. */
import { beatLength, endOf } from '../../score/metre';
import { byMeasure, type SoundingNote } from '../../score/query';
import type { Measure } from '../../score/score';
import type { Ticks } from '../../score/ticks';

/** A long note before a pickup lasts at least so much longer than the pickup's notes. */
const BREATH = 2;

/**
 * For each measure how long before its barline the melody begins to lead into it; 0 where it does not. Heard after a rest in
 * the second half of the measure before; or, where the piece itself begins with a pickup, at the same place after a
 * longer note. `melody` is one line, in order of time.
 */
export function pickupsInto(melody: readonly SoundingNote[], measures: readonly Measure[]): Ticks[] {
  const groups = byMeasure(measures, melody);
  const opening = measures[0] && measures[0].beginsAt > 0 ? measures[0].length : 0;
  return measures.map((measure, i): Ticks => {
    const before = measures[i - 1];
    if (!before || measure.beginsAt > 0 || before.beginsAt > 0) return 0;
    const notes = groups[i - 1]!;
    const end = endOf(before);
    if (notes.length < 1 || notes.some((n) => n.onset + n.duration > end)) return 0;
    const afterRest = notes.findLastIndex(
      (n, k) => k > 0 && notes[k - 1]!.onset + notes[k - 1]!.duration < n.onset,
    );
    const start = notes[afterRest]?.onset;
    if (start !== undefined && end - start <= before.length / 2) return end - start;
    const at = notes.findIndex((n) => n.onset === end - opening);
    const held = notes[at - 1];
    if (opening === 0 || opening > before.length / 2 || at < 1 || !held) return 0;
    const longest = Math.max(...notes.slice(at).map((n) => n.duration));
    return held.duration >= Math.max(BREATH * longest, beatLength(before.time)) ? opening : 0;
  });
}
