/** Which accidentals must be printed, measure by measure and staff by staff, under the key signature. */
import { keyAt } from './metre';
import { STEPS } from '../theory/pitch';
import type { Measure, Note } from './score';
import { fromFifths } from '../theory/fifths';

/** Alteration of a letter under a signature. */
export function alterInKey(step: string, fifths: number): number {
  const order = fifths > 0 ? [6, 7, 8, 9, 10, 11, 12] : [-2, -3, -4, -5, -6, -7, -8];
  const changed = order.slice(0, Math.abs(fifths)).map(fromFifths);
  return changed.find((c) => c.step === step)?.alter ?? 0;
}

/** Ids of the notes in one measure that show an accidental: the first of its kind since the barline, never a tied one. */
export function shownAccidentals(measure: Measure, notes: readonly Note[]): Set<string> {
  const shown = new Set<string>();
  const current = new Map<string, number>();
  let key = measure.key;
  for (const note of [...notes].sort((a, b) => a.onset - b.onset)) {
    const now = keyAt(measure, note.onset);
    if (now !== key) current.clear(); // a new signature takes the accidentals before it back
    key = now;
    const place = `${note.staff}:${note.pitch.octave * 7 + STEPS.indexOf(note.pitch.step)}`;
    const before = current.get(place) ?? alterInKey(note.pitch.step, key.fifths);
    const tiedOver = (note.tie === 'stop' || note.tie === 'both') && note.onset === measure.start;
    if (note.pitch.alter !== before && !tiedOver) shown.add(note.id);
    if (!tiedOver) current.set(place, note.pitch.alter);
  }
  return shown;
}
