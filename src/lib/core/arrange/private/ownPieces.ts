/** What both hands of a source need while they are thinned: pieces of it, their octaves, onsets and ends within a level. */
import { placeInMeasure } from '../../score/metre';
import { byOnset, type SoundingNote } from '../../score/query';
import type { Measure } from '../../score/score';
import type { Ticks } from '../../score/ticks';
import { shortestValue, type LevelContract } from '../levels';
import { isAllowedTuplet, writableEnd } from './writable';

/** A note of a version, and the note of the source that it is. */
export interface Piece extends SoundingNote {
  readonly source: SoundingNote;
}

/** The end at which a level can write a note. */
export function writtenEnd(
  note: Piece,
  measure: Measure,
  measures: readonly Measure[],
  contract: LevelContract,
): Ticks {
  const end = note.onset + note.duration;
  if (contract.shortestSimple === null || isAllowedTuplet(note.onset, end, measure, contract)) return end;
  const grid = shortestValue(contract, measure.time);
  const rounded =
    note.duration % grid === 0 ? end : note.onset + Math.max(1, Math.round(note.duration / grid)) * grid;
  return writableEnd(note.onset, rounded, measures, contract);
}

export interface ReadableOnset {
  readonly onset: Ticks;
  readonly notes: readonly SoundingNote[];
  /** Where what was left out right after it ends: the notes sing on until there. */
  readonly goesOn: Ticks;
}

/** The onsets on the grid of a level's shortest value, or in a tuplet that it reads. */
export function readableOnsets(
  source: readonly SoundingNote[],
  measure: Measure,
  contract: LevelContract,
): ReadableOnset[] {
  const grid = shortestValue(contract, measure.time);
  const kept: { onset: Ticks; notes: SoundingNote[]; goesOn: Ticks }[] = [];
  for (const { onset, notes } of byOnset(source)) {
    const isReadable =
      placeInMeasure(measure, onset) % grid === 0 ||
      notes.some((n) => isAllowedTuplet(onset, onset + n.duration, measure, contract));
    const before = kept.at(-1);
    if (isReadable) kept.push({ onset, notes, goesOn: onset });
    else if (before && endOfOnset(before) >= onset)
      before.goesOn = Math.max(before.goesOn, ...notes.map((n) => n.onset + n.duration));
  }
  return kept;
}

/** Where an onset and what it goes on over have ended. */
export const endOfOnset = ({ notes, goesOn }: ReadableOnset): Ticks =>
  Math.max(goesOn, ...notes.map((n) => n.onset + n.duration));
