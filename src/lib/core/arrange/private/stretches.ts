/** The chords of a measure as the hands can follow them: each from a place of the level's grid to the next. */
import type { ChordSpan } from '../../analysis/harmony';
import { beatLength, endOf, metricalStrength, placeInMeasure, pulseLength } from '../../score/metre';
import type { Measure } from '../../score/score';
import type { Ticks } from '../../score/ticks';
import { chordSymbol, type Chord } from '../../theory/chord';
import { leftOnsetsIn, type LevelContract } from '../levels';

export interface Stretch {
  readonly onset: Ticks;
  readonly end: Ticks;
  readonly chord: Chord;
}

export interface MeasureStretches {
  readonly measure: Measure;
  readonly stretches: readonly Stretch[];
  /** Chords that come too quickly for the level. */
  readonly leftOut: readonly string[];
  /** Chords that come before the beat and wait for it. */
  readonly moved: readonly string[];
}

/** What is left of a chord after its last beat is no place for a hand: a chord that anticipates the barline waits for it. */
export function stretchesOf(
  measures: readonly Measure[],
  chords: readonly ChordSpan[],
  contract: LevelContract,
  /** The source has no tune that begins alone: a chart, of which the chord of a pickup is played. */
  isChart = false,
): MeasureStretches[] {
  let first = 0;
  return measures.map((measure): MeasureStretches => {
    while (first < chords.length && chords[first]!.onset + chords[first]!.duration <= measure.start)
      first += 1;
    // A pickup is the melody's alone: the left hand comes in with the first full measure.
    if (measure.index === 0 && measure.beginsAt > 0 && !isChart)
      return { measure, stretches: [], leftOut: [], moved: [] };
    const inMeasure: ChordSpan[] = [];
    for (let i = first; i < chords.length && chords[i]!.onset < endOf(measure); i++)
      inMeasure.push(chords[i]!);
    return inOneMeasure(measure, inMeasure, contract);
  });
}

function inOneMeasure(
  measure: Measure,
  chords: readonly ChordSpan[],
  contract: LevelContract,
): MeasureStretches {
  const beat = beatLength(measure.time);
  const grid = contract.level < 3 ? beat : pulseLength(measure.time);
  const end = endOf(measure);
  const moved: string[] = [];
  const starts = new Map<Ticks, Chord>();
  for (const span of chords) {
    if (!span.chord) continue;
    const from = Math.max(span.onset, measure.start);
    const place = placeInMeasure(measure, from);
    const snapped = from + ((grid - (place % grid)) % grid);
    if (snapped > from) moved.push(chordSymbol(span.chord));
    if (snapped < end && snapped < span.onset + span.duration) starts.set(snapped, span.chord);
  }
  let onsets = [...starts.keys()].sort((a, b) => a - b);
  const most = leftOnsetsIn(contract, measure);
  let leftOut: string[] = [];
  if (onsets.length > most) {
    const strength = (tick: Ticks): number => metricalStrength(measure.time, placeInMeasure(measure, tick));
    const kept = new Set([...onsets].sort((a, b) => strength(b) - strength(a) || a - b).slice(0, most));
    leftOut = onsets.filter((o) => !kept.has(o)).map((o) => chordSymbol(starts.get(o)!));
    onsets = onsets.filter((o) => kept.has(o));
  }
  const silent = chords.filter((s) => !s.chord);
  const stretches = onsets.map((onset, i): Stretch => {
    const until = onsets[i + 1] ?? end;
    const rest = silent.find((s) => s.onset > onset && s.onset < until);
    return { onset, end: rest?.onset ?? until, chord: starts.get(onset)! };
  });
  return { measure, stretches, leftOut, moved };
}
