/** What kinds of decisions that change notes share: chords as they are struck, and notes written anew. */
import { letterAt, toMidi, type Pitch } from '../score/pitch';
import { keyAt } from '../score/metre';
import { notate } from '../score/notate';
import { measureAt, soundingNotes, type SoundingNote } from '../score/query';
import type { Measure, Note } from '../score/score';
import type { Ticks } from '../score/ticks';
import { chordTones, type Chord } from '../theory/chord';
import { fromFifths } from '../theory/fifths';
import { scaleFifths } from '../theory/key';
import type { Held } from './kind';

/** Keys that one hand strikes together, the lowest first. */
export interface StruckChord {
  readonly onset: Ticks;
  readonly staff: number;
  readonly notes: readonly SoundingNote[];
}

/** Every stroke of both hands, in order of time. */
export function struckChords(notes: readonly Note[]): StruckChord[] {
  const chords = new Map<string, { onset: Ticks; staff: number; notes: SoundingNote[] }>();
  for (const note of soundingNotes(notes)) {
    const place = `${note.staff} ${note.onset}`;
    const chord = chords.get(place);
    if (chord) chord.notes.push(note);
    else chords.set(place, { onset: note.onset, staff: note.staff, notes: [note] });
  }
  return [...chords.values()];
}

/** What is decided about a stroke by any of its notes; for the left hand else what holds in its measure. */
export function heldAt<Value>(
  { notes, staff, onset }: StruckChord,
  held: Held<Value>,
  measures: readonly Measure[],
): { readonly value: Value; readonly place: string | number } | undefined {
  for (const { id } of notes) {
    const value = held.notes.get(id);
    if (value !== undefined) return { value, place: id };
  }
  const { index } = measureAt(measures, onset);
  const value = staff === 2 ? held.measures[index] : undefined;
  return value === undefined ? undefined : { value, place: index };
}

/** Replaces struck notes, and what is tied to them, by others; those without a replacement go. */
export function replaced(
  notes: readonly Note[],
  gone: readonly SoundingNote[],
  made: readonly Note[],
): readonly Note[] {
  const ids = new Set(gone.flatMap((n) => n.written));
  return [...notes.filter((n) => !ids.has(n.id)), ...made];
}

/** The written notes of a struck one. */
export const writtenOf = (notes: readonly Note[], struck: SoundingNote): Note[] =>
  struck.written.flatMap((id) => notes.find((n) => n.id === id) ?? []);

/** A struck note that begins and lasts otherwise, cut and tied as it must be written. */
export function retimed(
  notes: readonly Note[],
  struck: SoundingNote,
  onset: Ticks,
  duration: Ticks,
  measures: readonly Measure[],
): Note[] {
  const [first] = writtenOf(notes, struck);
  if (!first) return [];
  const { tie: _tie, tuplet: _tuplet, brackets: _brackets, ...note } = first;
  return notate(measures, [{ ...note, onset, duration }]);
}

/** A pitch so many steps of the scale away, as the key has it, or the chord that sounds there. */
export function stepsAway(
  pitch: Pitch,
  steps: number,
  measure: Measure,
  tick: Ticks,
  chord: Chord | null,
): Pitch {
  const moved = letterAt(pitch, steps);
  const spelled = [...(chord ? chordTones(chord) : []), ...scaleFifths({ ...keyAt(measure, tick) })]
    .map(fromFifths)
    .find((p) => p.step === moved.step);
  return { ...moved, alter: spelled?.alter ?? 0 };
}

/** Semitones from the lowest to the highest of some pitches. */
export const widthOf = (pitches: readonly Pitch[]): number => {
  const keys = pitches.map(toMidi);
  return Math.max(...keys) - Math.min(...keys);
};
