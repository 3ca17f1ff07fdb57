/** Where a pianist leaves the pedal alone whatever the style: under a bass that steps, in staccato, and in five-finger pieces. */
import { isStepping } from '../analysis/figures';
import { byMeasure, soundingNotes, type SoundingNote } from '../score/query';
import type { Score } from '../score/score';

/** Widest range of a hand that stays in one position, in semitones. */
const FIVE_FINGERS = 7;
/** Share of the notes of a measure that must be short for it to be staccato. */
const STACCATO = 0.5;

/** For each measure of a two-staff score, whether it is played without pedal. */
export function dryMeasures(score: Score): readonly boolean[] {
  const notes = score.parts.flatMap((p) => soundingNotes(p.notes));
  const hands = [1, 2].map((staff) => notes.filter((n) => n.staff === staff));
  if (hands.every(staysInPosition)) return score.measures.map(() => true);
  const all = byMeasure(score.measures, notes);
  const left = byMeasure(score.measures, hands[1]!);
  return score.measures.map((measure, i) => {
    const short = all[i]!.filter((n) => n.articulations.some((a) => /^staccat/.test(a))).length;
    const isStaccato = all[i]!.length > 0 && short >= STACCATO * all[i]!.length;
    return isStaccato || (left[i]!.length > 0 && isStepping(measure, left[i]!));
  });
}

const staysInPosition = (hand: readonly SoundingNote[]): boolean => {
  const keys = hand.map((n) => n.midi);
  return Math.max(...keys) - Math.min(...keys) <= FIVE_FINGERS;
};
