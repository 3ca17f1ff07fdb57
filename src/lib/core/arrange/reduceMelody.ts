/**
 * The melody within a level: notes on the grid of the level's shortest value stay, notes between are left out or moved
 * to the beat they lean over, and each kept note sings on to the next, so that measures stay full.
 */
import { beatLength, isCompound, metricalStrength, placeInMeasure } from '../score/metre';
import { readableValues, writtenValue } from '../score/notate';
import { measureAt, type SoundingNote } from '../score/query';
import type { Measure, TimeSignature } from '../score/score';
import { noteValue, type Ticks } from '../score/ticks';
import type { LevelContract } from './levels';

export interface MelodyChange {
  readonly measure: number;
  readonly note: string;
  readonly kind: 'left-out' | 'moved' | 'lengthened' | 'shortened';
  readonly reason: string;
}

export interface ReducedMelody {
  readonly notes: readonly SoundingNote[];
  readonly changes: readonly MelodyChange[];
}

/** Shortest value a level allows in a metre; never longer than the beat itself (3/8 keeps its eighths). */
export const shortestValue = (contract: LevelContract, time: TimeSignature): Ticks =>
  isCompound(time) ? contract.shortestCompound : Math.min(contract.shortestSimple, noteValue(time.beatType));

const VALUE_NAMES: Readonly<Record<number, string>> = {
  2: 'half',
  4: 'quarter',
  8: 'eighth',
  16: 'sixteenth',
};

const valueName = (ticks: Ticks): string => VALUE_NAMES[writtenValue(ticks)?.type ?? 0] ?? 'short';

/** Reduces a melody (one line, in order) to what the level's contract allows. */
export function reduceMelody(
  melody: readonly SoundingNote[],
  measures: readonly Measure[],
  contract: LevelContract,
): ReducedMelody {
  const changes: MelodyChange[] = [];
  const kept = placeOnsets(melody, measures, contract, changes);
  const notes = kept.map((item, i): SoundingNote => {
    const measure = measureAt(measures, item.onset);
    const grid = shortestValue(contract, measure.time);
    const next = kept[i + 1]?.onset ?? Infinity;
    const exact = item.end === item.note.onset + item.note.duration && item.onset === item.note.onset;
    const onGrid = (item.end - item.onset) % grid === 0;
    const isTriplet = contract.triplets && exact && isEighthTriplet(item.onset, item.end, measure);
    const rounded = Math.max(1, Math.round((item.end - item.onset) / grid)) * grid;
    let end = onGrid || isTriplet ? item.end : item.onset + rounded;
    if (next - end < grid && !isTriplet) end = next;
    end = Math.min(end, next);
    end = readableEnd(item.onset, end, measures, contract);
    const duration = end - item.onset;
    const sourceDuration = item.note.duration;
    if (item.onset === item.note.onset && duration !== sourceDuration)
      changes.push({
        measure: measure.index,
        note: item.note.id,
        kind: duration > sourceDuration ? 'lengthened' : 'shortened',
        reason:
          duration > sourceDuration
            ? 'held on, to fill the place of what is left out'
            : `shortened to a value that level ${contract.level} reads`,
      });
    return { ...item.note, onset: item.onset, duration };
  });
  return { notes, changes };
}

interface Kept {
  readonly note: SoundingNote;
  readonly onset: Ticks;
  /** Where the note, with what was left out right after it, ends in the source. */
  end: Ticks;
}

function placeOnsets(
  melody: readonly SoundingNote[],
  measures: readonly Measure[],
  contract: LevelContract,
  changes: MelodyChange[],
): Kept[] {
  const struck = new Set(melody.map((n) => n.onset));
  const kept: Kept[] = [];
  const extend = (from: Ticks, to: Ticks): void => {
    const last = kept.at(-1);
    if (last && last.end >= from) last.end = Math.max(last.end, to);
  };
  melody.forEach((note, i) => {
    const measure = measureAt(measures, note.onset);
    const place = placeInMeasure(measure, note.onset);
    const end = note.onset + note.duration;
    const grid = shortestValue(contract, measure.time);
    const say = (kind: MelodyChange['kind'], reason: string): void =>
      void changes.push({ measure: measure.index, note: note.id, kind, reason });

    if (place % grid === 0 || (contract.triplets && isEighthTriplet(note.onset, end, measure))) {
      const straightened = straighten(note, measure, contract, struck);
      if (straightened === undefined) {
        kept.push({ note, onset: note.onset, end });
        return;
      }
      extend(note.onset, straightened);
      kept.push({ note, onset: straightened, end });
      say('moved', 'moved to the beat that it leans over, where it is easier to count');
      return;
    }
    const gridTick = note.onset - (place % grid) + grid;
    if (end > gridTick && !struck.has(gridTick) && gridTick < measure.start + measure.length) {
      extend(note.onset, gridTick);
      kept.push({ note, onset: gridTick, end });
      say(
        'moved',
        `moved to the beat: level ${contract.level} has nothing shorter than a ${valueName(grid)} note`,
      );
      return;
    }
    extend(note.onset, end);
    const before = melody[i - 1];
    const after = melody[i + 1];
    const passing = before && after && isBetween(before.midi, note.midi, after.midi);
    const why = passing
      ? 'a passing note'
      : before && before.midi === note.midi
        ? 'a repeated note'
        : 'between the beats';
    say('left-out', `${why}; level ${contract.level} has nothing shorter than a ${valueName(grid)} note`);
  });
  return kept;
}

const isBetween = (a: number, b: number, c: number): boolean => (a < b && b < c) || (a > b && b > c);

/** Eighth triplets that keep to their beat. */
function isEighthTriplet(onset: Ticks, end: Ticks, measure: Measure): boolean {
  if (isCompound(measure.time)) return false;
  const beat = beatLength(measure.time);
  const third = noteValue(4) / 3;
  const place = placeInMeasure(measure, onset);
  const inBeat = Math.floor(place / beat) === Math.floor((place + end - onset - 1) / beat);
  return (
    beat === noteValue(4) &&
    inBeat &&
    place % third === 0 &&
    (end - onset) % third === 0 &&
    (end - onset) % (beat / 2) !== 0
  );
}

/** At levels without ties inside a measure a long note that starts off the beat goes to the next beat. */
function straighten(
  note: SoundingNote,
  measure: Measure,
  contract: LevelContract,
  struck: ReadonlySet<Ticks>,
): Ticks | undefined {
  if (contract.ties === 'any') return undefined;
  const beat = beatLength(measure.time);
  const place = placeInMeasure(measure, note.onset);
  if (metricalStrength(measure.time, place) >= 2) return undefined;
  const inMeasure = Math.min(note.duration, measure.start + measure.length - note.onset);
  if (readableValues(measure.time, place, place + inMeasure).length === 1) return undefined;
  const next = note.onset - (place % beat) + beat;
  const fits =
    next < note.onset + note.duration && next < measure.start + measure.length && !struck.has(next);
  return fits ? next : undefined;
}

/** Shortens a note until the level can write it: no ties inside a measure where it has none, no foreign dots. */
function readableEnd(onset: Ticks, end: Ticks, measures: readonly Measure[], contract: LevelContract): Ticks {
  let at = onset;
  while (at < end) {
    const measure = measureAt(measures, at);
    const barline = measure.start + measure.length;
    const to = Math.min(end, barline);
    const place = placeInMeasure(measure, at);
    const values = readableValues(measure.time, place, place + to - at);
    const dots = isCompound(measure.time) ? contract.dottedCompound : contract.dotted;
    const isAllowed = (value: Ticks): boolean => {
      const written = writtenValue(value);
      return !written || written.dots === 0 || (written.dots === 1 && dots.includes(written.type));
    };
    if (contract.ties === 'barline' && values.length > 1) return at + values[0]!;
    if (!values.every(isAllowed)) {
      const grid = shortestValue(contract, measure.time);
      const shorter = to - grid;
      return shorter > at ? readableEnd(onset, shorter, measures, contract) : to;
    }
    if (measure.index === measures.length - 1 || to === end) return to;
    at = barline;
  }
  return end;
}
