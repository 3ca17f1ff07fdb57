/**
 * What a learner says while playing, in any school and metre: a word for every onset, every held beat and every rest,
 * and no finer than the measure needs.
 */
import { beatLength, endOf, groupsOf, isCompound, isOdd, placeInMeasure } from '../score/metre';
import type { Measure, TimeSignature } from '../score/score';
import { noteValue, type Ticks } from '../score/ticks';
import { SCHOOLS, type Places, type School, type SchoolId } from './schools';

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
interface Sounding {
  readonly onset: Ticks;
  readonly duration: Ticks;
}

export interface CountingOptions {
  readonly school: SchoolId;
  /** How a measure of two half notes is counted. */
  readonly cutTime: 'halves' | 'quarters';
}

export const USUAL_COUNTING: CountingOptions = { school: 'numbers', cutTime: 'halves' };

/** Counts every measure; `optionsFor` may differ from measure to measure, null leaves one uncounted. */
export const countMeasures = (
  measures: readonly Measure[],
  notes: readonly Sounding[],
  optionsFor: (measure: number) => CountingOptions | null = () => USUAL_COUNTING,
): MeasureCounts[] => {
  const sorted = [...notes].sort((a, b) => a.onset - b.onset);
  let first = 0;
  let reaching: Sounding[] = [];
  return measures.map((measure) => {
    // Only what sounds in this measure is looked at: what reaches into it, and what begins in it.
    const inside = reaching.filter((n) => n.onset + n.duration > measure.start);
    while (first < sorted.length && sorted[first]!.onset < endOf(measure)) inside.push(sorted[first++]!);
    reaching = inside.filter((n) => n.onset + n.duration > endOf(measure));
    const options = optionsFor(measure.index);
    return { measure: measure.index, counts: options ? countMeasure(measure, inside, options) : [] };
  });
};

/** A stretch of a measure in one metre; most measures are one. Places count from the beginning of a full measure. */
interface MetreSpan {
  readonly time: TimeSignature;
  /** Place of its first beat, and where it ends. */
  readonly from: Ticks;
  readonly to: Ticks;
}

/** Counts one measure for the notes that one hand (or both) plays in it. */
export function countMeasure(
  measure: Measure,
  notes: readonly Sounding[],
  options: CountingOptions = USUAL_COUNTING,
): Count[] {
  return stretchesOf(measure, options).flatMap((stretch) => countStretch(measure, stretch, notes, options));
}

function stretchesOf(measure: Measure, { cutTime }: CountingOptions): MetreSpan[] {
  const counted = (time: TimeSignature): TimeSignature =>
    cutTime === 'quarters' && time.beats === 2 && time.beatType === 2 ? { beats: 4, beatType: 4 } : time;
  const changes = (measure.changes ?? []).filter((c) => c.time);
  const starts = [
    { time: measure.time, from: 0, begins: measure.beginsAt },
    ...changes.map((c) => {
      const from = placeInMeasure(measure, c.onset);
      return { time: c.time!, from, begins: from };
    }),
  ];
  const end = measure.beginsAt + measure.length;
  return starts.map(({ time, from }, i) => ({ time: counted(time), from, to: starts[i + 1]?.from ?? end }));
}

/** A beat as it is counted: even ones, or the groups of a metre that has no even ones. */
interface Beat {
  readonly index: number;
  readonly from: Ticks;
  readonly length: Ticks;
  /** It falls into three pulses: of a compound metre, or of a group of three. */
  readonly isThree: boolean;
  /** It is a group of pulses, each of which schools that count pulses count. */
  readonly isGroup: boolean;
  /** Pulses of its measure before it. */
  readonly pulsesBefore: number;
}

/** The beats from a place to another. Groups of four are counted as two and two. */
function beatsIn({ time, from, to }: MetreSpan): Beat[] {
  const groups = isOdd(time) ? groupsOf(time)?.flatMap((g) => (g === 4 ? [2, 2] : [g])) : undefined;
  const pulse = noteValue(time.beatType);
  const beat = beatLength(time);
  const beats: Beat[] = [];
  let pulsesBefore = 0;
  for (let place = from, index = 0; place < to; index++) {
    const group = groups?.[index % groups.length];
    const length = group ? group * pulse : beat;
    const isThree = group ? group === 3 : isCompound(time);
    beats.push({ index, from: place, length, isThree, isGroup: group !== undefined, pulsesBefore });
    pulsesBefore += length / pulse;
    place += length;
  }
  return beats;
}

/** How a school counts pulses; numbers go through all those of a measure in groups, where no beat is even. */
const pulsesOf = ({ pulses, beat }: School, isGroup: boolean): School['pulses'] =>
  pulses ?? (isGroup && beat === 'number' ? 'through' : undefined);

function countStretch(
  measure: Measure,
  stretch: MetreSpan,
  notes: readonly Sounding[],
  options: CountingOptions,
): Count[] {
  const { from, to } = stretch;
  const school = SCHOOLS[options.school];
  const beats = beatsIn(stretch);
  const beatAt = (place: Ticks): Beat => beats.findLast((b) => b.from <= place)!;
  const toPlace = (tick: Ticks): Ticks => placeInMeasure(measure, tick);
  const starts = Math.max(from, measure.beginsAt);
  const isInside = (place: Ticks): boolean => place >= starts && place < to;
  const onsets = new Set(notes.map((n) => toPlace(n.onset)).filter(isInside));
  const places = new Set(onsets);
  for (const { from: start, length, isThree, isGroup } of beats) {
    const parts = !pulsesOf(school, isGroup) ? 1 : isThree ? 3 : isGroup ? 2 : 1;
    for (let i = 0; i < parts; i++) {
      const place = start + (i * length) / parts;
      if (isInside(place)) places.add(place);
    }
  }
  for (const rest of restsOf(measure, notes).map(toPlace)) if (isInside(rest)) places.add(rest);
  // A beat of three is felt in three: what is struck late in it is counted from its pulses, unless a word says how long it is.
  if (!school.whole)
    for (const onset of onsets) {
      const { isThree, from: start, length } = beatAt(onset);
      if (!isThree) continue;
      for (let place = start; place < onset; place += length / 3) if (isInside(place)) places.add(place);
    }
  const sorted = [...places].sort((a, b) => a - b);
  const withinBeat = (place: Ticks): number => {
    const beat = beatAt(place);
    return twelfth(place - beat.from, beat.length);
  };
  /** Places inside each beat, in twelfths of it, at which something is struck or stops. */
  const divisions = new Map<number, Set<number>>();
  for (const place of sorted) {
    const { index } = beatAt(place);
    const known = divisions.get(index) ?? new Set<number>();
    known.add(withinBeat(place));
    divisions.set(index, known);
  }
  return sorted.map((place): Count => {
    const beat = beatAt(place);
    const isOnset = onsets.has(place);
    const tick = measure.start + place - measure.beginsAt;
    const lasts = isOnset ? lengthFrom(notes, tick) : 0;
    return {
      at: place - measure.beginsAt,
      say: wordFor(school, beat, { within: withinBeat(place), lasts }, divisions.get(beat.index)!),
      kind: isOnset
        ? 'onset'
        : notes.some((n) => n.onset < tick && n.onset + n.duration > tick)
          ? 'held'
          : 'rest',
    };
  });
}

/** Nearest twelfth of a beat; finer places keep their fraction. */
const twelfth = (within: Ticks, beat: Ticks): number => (12 * within) / beat;

/** Ticks at which silence begins. */
function restsOf(measure: Measure, notes: readonly Sounding[]): Ticks[] {
  return notes
    .map((n) => n.onset + n.duration)
    .filter(
      (end) =>
        end > measure.start &&
        end < endOf(measure) &&
        !notes.some((n) => n.onset <= end && n.onset + n.duration > end),
    );
}

/** How long what is struck at a tick lasts, at most. */
const lengthFrom = (notes: readonly Sounding[], tick: Ticks): Ticks =>
  Math.max(0, ...notes.filter((n) => n.onset === tick).map((n) => n.duration));

interface PlaceInBeat {
  /** Where in the beat, in twelfths. */
  readonly within: number;
  /** Ticks that the note lasts which is struck there; 0 for none. */
  readonly lasts: Ticks;
}

function wordFor(
  school: School,
  { index, length: beat, isThree: compound, isGroup, pulsesBefore }: Beat,
  { within, lasts }: PlaceInBeat,
  division: ReadonlySet<number>,
): string {
  // Twelfths of a pulse, in a beat of three and in a group of two.
  const pulse = compound ? 4 : 6;
  const isPulse = (compound || isGroup) && within % pulse === 0;
  const pulses = pulsesOf(school, isGroup);
  if (isPulse && pulses === 'through') return String(pulsesBefore + within / pulse + 1);
  if (isPulse && isGroup && within > 0 && pulses === 'by beat') return String(within / pulse + 1);
  const inThree = !compound && [4, 8].some((t) => division.has(t));
  const inFive = Object.keys(school.quintuplet).some((place) => division.has(Number(place)));
  const places: Places = inFive
    ? school.quintuplet
    : compound
      ? school.compound
      : inThree
        ? school.triplet
        : school.simple;
  if (school.whole) {
    // Here a word says how long: a note of a beat (or of two pulses) has the same one wherever it begins.
    const long = compound ? (2 * beat) / 3 : beat;
    if (lasts >= long && within % pulse === 0) return school.whole;
    if (within === 0 && division.size === 1) return school.whole;
  }
  if (within === 0) return places[0] ?? (school.beat === 'number' ? String(index + 1) : school.beat);
  return places[within] ?? nearestWord(places, within);
}

/** Places too fine for a word of their own share that of the place before, or of the nearest after it. */
function nearestWord(places: Places, within: number): string {
  const known = Object.keys(places)
    .map(Number)
    .filter((p) => p > 0)
    .sort((a, b) => Math.abs(a - within) - Math.abs(b - within));
  return places[known[0]!]!;
}

/** How a count is written: onsets plain, held beats and rests in brackets. */
export const countText = (count: Count): string => (count.kind === 'onset' ? count.say : `(${count.say})`);

/** A measure's counts in one line: "1 (2) & 3 4". */
export const countsInWords = (counts: readonly Count[]): string => counts.map(countText).join(' ');

/**
 * Other words for the counts of a measure, as a teacher writes them: one for each place, in order; brackets do not matter.
 * Undefined where their number is not that of the places.
 */
export function withOtherWords(counts: readonly Count[], text: string): Count[] | undefined {
  const words = text
    .split(/\s+/)
    .map((w) => w.replace(/^\(|\)$/g, ''))
    .filter(Boolean);
  if (words.length !== counts.length) return undefined;
  return counts.map((count, i) => ({ ...count, say: words[i]! }));
}
