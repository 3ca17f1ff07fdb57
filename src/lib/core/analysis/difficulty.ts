/**
 * How hard a measure is, 0 to 100, from what hands and eyes must do in it, with the reasons in words. A first model:
 * each term is bounded, so that none alone can fill the scale.
 */
import { beatLength } from '../score/metre';
import { isBlackKey } from '../score/pitch';
import { byMeasure, byOnset, type SoundingNote } from '../score/query';
import type { Measure } from '../score/score';
import { shownAccidentals } from '../score/accidentals';
import type { Note } from '../score/score';
import { TICKS_PER_QUARTER } from '../score/ticks';

export interface MeasureDifficulty {
  readonly measure: number;
  readonly score: number;
  /** At most three, the biggest first. */
  readonly reasons: readonly string[];
}

/** Measures of one version or source. `written` are the notes as notated, for accidentals; `tempo` in quarters a minute. */
export function difficultyOf(
  measures: readonly Measure[],
  notes: readonly SoundingNote[],
  written: readonly Note[],
  tempo: number,
): MeasureDifficulty[] {
  const struck = byMeasure(measures, notes);
  const onPage = byMeasure(measures, written);
  return measures.map((measure, i) => {
    const terms = termsOf(measure, struck[i]!, onPage[i]!, tempo || 100).sort((a, b) => b.points - a.points);
    const score = Math.min(100, Math.round(terms.reduce((sum, t) => sum + t.points, 0)));
    return {
      measure: measure.index,
      score,
      reasons: terms
        .filter((t) => t.points >= 3)
        .slice(0, 3)
        .map((t) => t.says),
    };
  });
}

/** The hardest measures, three at most, that stand out and say why. */
export function hardestOf(difficulty: readonly MeasureDifficulty[]): MeasureDifficulty[] {
  const mean = difficulty.reduce((sum, d) => sum + d.score, 0) / Math.max(1, difficulty.length);
  return [...difficulty]
    .filter((d) => d.reasons.length > 0 && d.score > mean)
    .sort((a, b) => b.score - a.score || a.measure - b.measure)
    .slice(0, 3);
}

function termsOf(
  measure: Measure,
  notes: readonly SoundingNote[],
  written: readonly Note[],
  tempo: number,
): { points: number; says: string }[] {
  if (notes.length === 0) return [];
  const seconds = (measure.length / TICKS_PER_QUARTER) * (60 / tempo);
  const hands = [1, 2].map((staff) => byOnset(notes.filter((n) => n.staff === staff)));
  const busiest = Math.max(...hands.map((h) => h.length)) / seconds;
  const beat = beatLength(measure.time);
  const offBeat = notes.filter((n) => (n.onset - measure.start + measure.beginsAt) % beat !== 0).length;
  const syncopated = notes.filter((n) => {
    const place = n.onset - measure.start + measure.beginsAt;
    return place % beat !== 0 && Math.floor(place / beat) !== Math.floor((place + n.duration - 1) / beat);
  }).length;
  const leap = Math.max(
    0,
    ...hands.flatMap((hand) =>
      hand.slice(1).map((event, i) => Math.abs(event.notes[0]!.midi - hand[i]!.notes[0]!.midi)),
    ),
  );
  const chordSize = Math.max(...hands.flatMap((h) => h.map((e) => e.notes.length)));
  const span = Math.max(...hands.flatMap((h) => h.map((e) => e.notes.at(-1)!.midi - e.notes[0]!.midi)));
  const accidentals = shownAccidentals(measure, written).size;
  const blacks = notes.filter((n) => isBlackKey(n.midi)).length / notes.length;
  const together = new Set(hands[0]!.map((e) => e.onset));
  const apart = hands[1]!.filter((e) => !together.has(e.onset)).length;
  const bounded = (value: number, most: number): number => Math.max(0, Math.min(most, value));
  return [
    { points: bounded(busiest * 6, 30), says: `${busiest.toFixed(1)} notes a second` },
    { points: bounded((leap - 5) * 1.5, 15), says: `a leap of ${leap} semitones` },
    { points: bounded((chordSize - 1) * 5, 15), says: `${chordSize} notes at once in one hand` },
    { points: bounded((span - 7) * 2, 10), says: `a span of ${span} semitones` },
    { points: bounded(offBeat * 1.2, 10), says: 'notes between the beats' },
    { points: bounded(syncopated * 5, 12), says: 'syncopation' },
    {
      points: bounded(accidentals * 3, 12),
      says: `${accidentals} ${accidentals === 1 ? 'accidental' : 'accidentals'}`,
    },
    { points: bounded(blacks * 12, 10), says: 'many black keys' },
    { points: bounded(apart * 3, 12), says: 'the hands move at different times' },
  ];
}
