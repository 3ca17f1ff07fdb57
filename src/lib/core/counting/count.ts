/**
 * What a learner says while playing, in the numbers school: 1 & 2 &, 1 e & a, 1 trip let; compound beats 1 & a 2 & a.
 * Every onset and every beat has an entry; only as fine as the measure needs.
 */
import { beatLength, endOf, isCompound, placeInMeasure } from '../score/metre';
import type { Measure } from '../score/score';
import type { Ticks } from '../score/ticks';

export interface Count {
  /** Ticks from the start of the measure as it stands (a pickup's first note is at 0). */
  readonly at: Ticks;
  readonly say: string;
  readonly kind: 'onset' | 'held' | 'rest';
}

export interface MeasureCounts {
  readonly measure: number;
  readonly counts: readonly Count[];
}

/** A stretch in which something sounds; ticks of the score. */
export interface Sounding {
  readonly onset: Ticks;
  readonly duration: Ticks;
}

/** Counts every measure. */
export const countMeasures = (measures: readonly Measure[], notes: readonly Sounding[]): MeasureCounts[] =>
  measures.map((measure) => ({ measure: measure.index, counts: countMeasure(measure, notes) }));

/** Counts one measure for the notes that one hand (or both) plays in it. */
export function countMeasure(measure: Measure, notes: readonly Sounding[]): Count[] {
  const beat = beatLength(measure.time);
  const places = new Set<Ticks>();
  for (let place = 0; place < measure.beginsAt + measure.length; place += beat)
    if (place >= measure.beginsAt) places.add(place);
  const onsets = new Set<Ticks>();
  for (const note of notes)
    if (note.onset >= measure.start && note.onset < endOf(measure)) {
      const place = placeInMeasure(measure, note.onset);
      onsets.add(place);
      places.add(place);
    }
  return [...places]
    .sort((a, b) => a - b)
    .map((place) => {
      const tick = measure.start + place - measure.beginsAt;
      const sounds = notes.some((n) => n.onset < tick && n.onset + n.duration > tick);
      return {
        at: place - measure.beginsAt,
        say: syllable(measure, place, onsets),
        kind: onsets.has(place) ? 'onset' : sounds ? 'held' : 'rest',
      };
    });
}

const QUARTERS_OF_A_BEAT = ['', 'e', '&', 'a'];

function syllable(measure: Measure, place: Ticks, onsets: ReadonlySet<Ticks>): string {
  const beat = beatLength(measure.time);
  // A measure longer than its metre goes on counting: 1 2 3 4 5.
  const number = Math.floor(place / beat) + 1;
  const within = place % beat;
  if (within === 0) return String(number);
  if (isCompound(measure.time)) {
    const pulse = beat / 3;
    if (within % pulse === 0) return ['', '&', 'a'][within / pulse]!;
    return 'e';
  }
  const inThirds = [...onsets].some(
    (o) => Math.floor(o / beat) === number - 1 && (o % beat) % (beat / 3) === 0 && o % beat !== 0,
  );
  if (inThirds && within % (beat / 3) === 0) return within === beat / 3 ? 'trip' : 'let';
  if (within % (beat / 4) === 0) return QUARTERS_OF_A_BEAT[within / (beat / 4)]!;
  return within < beat / 2 ? 'e' : 'a';
}

/** How a count is written: onsets plain, held beats and rests in brackets. */
export const countText = (count: Count): string => (count.kind === 'onset' ? count.say : `(${count.say})`);

/** A measure's counts in one line: "1 (2) & 3 4". */
export const countsInWords = (counts: readonly Count[]): string => counts.map(countText).join(' ');
