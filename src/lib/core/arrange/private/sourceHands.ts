/** How thick and how busy the hands of a source are: a simplified version is neither thicker nor busier. */
import { beatLength } from '../../score/metre';
import { byOnset, keyboardPart, measureAt, soundingNotes, type SoundingNote } from '../../score/query';
import type { Score } from '../../score/score';

/** Under so many notes to a stroke the right hand of a source counts as a single line. */
export const THIN = 1.2;

/** Notes to a stroke in the right hand of the source. */
export function rightThickness(score: Score): number {
  const right = soundingNotes(keyboardPart(score).notes.filter((n) => n.staff === 1));
  return right.length / Math.max(1, new Set(right.map((n) => n.onset)).size);
}

/** The source's measures are not all equally busy: a texture may be so much busier than their mean. */
export const NO_BUSIER = 1.2;

/** Keys that nine of ten chords of the source's left hand do not exceed; two at least. */
export function usualThickness(left: readonly SoundingNote[]): number {
  const sizes = byOnset(left)
    .map((g) => g.notes.length)
    .filter((n) => n > 1)
    .sort((a, b) => a - b);
  return Math.max(2, sizes[Math.floor(sizes.length * 0.9)] ?? 2);
}

/** Strokes to a beat in the source's left hand, over the measures in which it plays. */
export function strokesPerBeat(left: readonly SoundingNote[], score: Score): number {
  const onsets = new Set(left.map((n) => n.onset));
  const measures = new Set([...onsets].map((o) => measureAt(score.measures, o)));
  const beats = [...measures].reduce((sum, m) => sum + m.length / beatLength(m.time), 0);
  return onsets.size / Math.max(1, beats);
}
