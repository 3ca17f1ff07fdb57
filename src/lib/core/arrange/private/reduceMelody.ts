/**
 * The melody within a level: notes on the grid of the level's shortest value stay, notes between are left out or moved
 * to the beat they lean over, and each kept note sings on to the next, so that measures stay full.
 */
import { beatLength, endOf, metricalStrength, placeInMeasure } from '../../score/metre';
import { readableValues, writtenValue } from '../../score/notate';
import { measureAt, type SoundingNote } from '../../score/query';
import type { Measure } from '../../score/score';
import { noteValue, type Ticks } from '../../score/ticks';
import { levelText, shortestValue, type LevelContract } from '../levels';
import { isAllowedTuplet, mayCrossBarline, writableEnd } from './writable';

export interface MelodyChange {
  readonly measure: number;
  readonly note: string;
  readonly kind: 'left-out' | 'moved' | 'lengthened' | 'shortened';
  readonly reason: string;
}

interface ReducedMelody {
  readonly notes: readonly SoundingNote[];
  readonly changes: readonly MelodyChange[];
}

const VALUE_NAMES: Readonly<Record<number, string>> = {
  2: 'a half note',
  4: 'a quarter note',
  8: 'an eighth note',
  16: 'a sixteenth note',
};

const valueName = (ticks: Ticks): string => VALUE_NAMES[writtenValue(ticks)?.type ?? 0] ?? 'that';

/**
 * Reduces a melody (one line, in order) to what the level's contract allows. Notes in `sung`, by their ids, bear a syllable: each stays
 * where it is sung, down to eighths, whatever the level.
 */
export function reduceMelody(
  melody: readonly SoundingNote[],
  measures: readonly Measure[],
  contract: LevelContract,
  sung: ReadonlySet<string> = NONE,
): ReducedMelody {
  const changes: MelodyChange[] = [];
  // Without limits a melody stays as it is, to the tick.
  if (contract.shortestSimple === null && contract.shortestCompound === null && contract.tuplets === 'any')
    return { notes: melody, changes };
  const kept = placeOnsets(melody, measures, contract, sung, changes);
  const notes = kept.map((item, i): SoundingNote => {
    const measure = measureAt(measures, item.onset);
    const grid = shortestValue(contract, measure.time);
    const next = kept[i + 1]?.onset ?? Infinity;
    const exact = item.end === item.note.onset + item.note.duration && item.onset === item.note.onset;
    const onGrid = (item.end - item.onset) % grid === 0 && placeInMeasure(measure, item.onset) % grid === 0;
    const inTuplet = isAllowedTuplet(item.onset, item.end, measure, contract);
    const rounded = Math.max(1, Math.round((item.end - item.onset) / grid)) * grid;
    let end = onGrid || inTuplet ? item.end : item.onset + rounded;
    if (next - end < grid && !inTuplet) end = next;
    end = Math.min(end, next);
    // Between syllables there is no hole: a note lasts to a syllable that the level could not place.
    const leads = kept[i + 1] !== undefined && sung.has(kept[i + 1]!.note.id) && end === next;
    if (!(exact && inTuplet) && !leads) end = writableEnd(item.onset, end, measures, contract);
    const duration = end - item.onset;
    const sourceDuration = item.note.duration;
    if (item.onset === item.note.onset && duration !== sourceDuration)
      changes.push({
        measure: measure.index,
        note: item.note.id,
        kind: duration > sourceDuration ? 'lengthened' : 'shortened',
        reason:
          duration > sourceDuration
            ? 'held to fill the gap'
            : `shortened to a note value at level ${levelText(contract.level)} reads`,
      });
    return { ...item.note, onset: item.onset, duration };
  });
  return { notes, changes };
}

const NONE: ReadonlySet<string> = new Set();
/** The shortest value on which a syllable keeps its note. */
const SYLLABLE = noteValue(8);

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
  sung: ReadonlySet<string>,
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

    if (sung.has(note.id) && place % grid !== 0 && place % Math.min(grid, SYLLABLE) === 0) {
      kept.push({ note, onset: note.onset, end });
      return;
    }
    if (place % grid === 0 || isAllowedTuplet(note.onset, end, measure, contract)) {
      const straightened = straighten(note, measure, contract, struck);
      if (straightened === undefined) {
        kept.push({ note, onset: note.onset, end });
        return;
      }
      extend(note.onset, straightened);
      kept.push({ note, onset: straightened, end });
      say('moved', 'moved to the beat, where it is easier to count');
      return;
    }
    const gridTick = note.onset - (place % grid) + grid;
    if (end > gridTick && !struck.has(gridTick)) {
      extend(note.onset, gridTick);
      kept.push({ note, onset: gridTick, end });
      say(
        'moved',
        `moved to the beat: level ${levelText(contract.level)} has nothing shorter than ${valueName(grid)}`,
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
    say('left-out', `${why}; level ${levelText(contract.level)} has nothing shorter than ${valueName(grid)}`);
  });
  return kept;
}

const isBetween = (a: number, b: number, c: number): boolean => (a < b && b < c) || (a > b && b > c);

/** At levels without ties inside a measure a note that is pushed before a beat, or a barline, goes to it. */
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
  const barline = endOf(measure);
  const inMeasure = Math.min(note.duration, barline - note.onset);
  // Pushed before the barline, or held over it where the level ties over it for long notes only: it goes to where most of it sounds.
  const isPushed = inMeasure < beat && inMeasure < note.duration;
  const isTiedOver = isPushed || !mayCrossBarline(measure, note.duration, contract);
  if (inMeasure * 2 <= note.duration && isTiedOver && !struck.has(barline)) return barline;
  if (readableValues(measure.time, place, place + inMeasure).length === 1) return undefined;
  const next = note.onset - (place % beat) + beat;
  const fits = next < note.onset + note.duration && !struck.has(next);
  return fits ? next : undefined;
}
