/** What kinds of decisions that change notes share: chords as they are struck, and notes written anew. */
import { letterAt, toMidi, type Pitch } from '../../theory/pitch';
import { keyAt } from '../../score/metre';
import { notate } from '../../score/notate';
import { measureAt, soundingNotes, type SoundingNote } from '../../score/query';
import type { Measure, Note } from '../../score/score';
import type { Ticks } from '../../score/ticks';
import { chordTones, type Chord } from '../../theory/chord';
import { fromFifths } from '../../theory/fifths';
import { alterInKey } from '../../theory/key';
import type { Held, Passage } from '../kind';

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
function heldAt<Value>(
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

/** A stroke of which something is decided. */
export interface DecidedStroke<Value> extends StruckChord {
  readonly value: Value;
  /** The written notes of one of its keys. */
  readonly written: (note: SoundingNote) => readonly Note[];
  /** Parks the decision with a reason, and leaves the stroke as it is. */
  readonly refuse: (why: string) => undefined;
}

/**
 * Writes every stroke anew of which something is decided: `change` gives its written notes, or refuses. Where a decision for a whole
 * measure meets a single key that is not one of a chord, `change` is not asked; one about that very key is refused.
 */
export function changedStrokes<Value>(
  notes: readonly Note[],
  held: Held<Value>,
  { measures, refuse }: Pick<Passage, 'measures' | 'refuse'>,
  change: (stroke: DecidedStroke<Value>) => readonly Note[] | undefined,
  least = 1,
): readonly Note[] {
  const byId = new Map(notes.map((n) => [n.id, n]));
  const gone: SoundingNote[] = [];
  const made: Note[] = [];
  for (const stroke of struckChords(notes)) {
    const decided = heldAt(stroke, held, measures);
    if (!decided) continue;
    if (stroke.notes.length < least) {
      if (typeof decided.place === 'string') refuse(decided.place, 'no chord is played here');
      continue;
    }
    const changed = change({
      ...stroke,
      value: decided.value,
      written: ({ written }) => written.flatMap((id) => byId.get(id) ?? []),
      refuse: (why) => void refuse(decided.place, why),
    });
    if (!changed) continue;
    gone.push(...stroke.notes);
    made.push(...changed);
  }
  return gone.length > 0 ? replaced(notes, gone, made) : notes;
}

/** What is decided about struck notes, by the ids of all written notes that they are made of. */
export const byPiece = <Value>({ notes }: Held<Value>, tied: Passage['tied']): ReadonlyMap<string, Value> =>
  new Map([...notes].flatMap(([id, value]) => tied(id).map((piece) => [piece, value] as const)));

/** Replaces struck notes, and what is tied to them, by others; those without a replacement go. */
export function replaced(
  notes: readonly Note[],
  gone: readonly SoundingNote[],
  made: readonly Note[],
): readonly Note[] {
  const ids = new Set(gone.flatMap((n) => n.written));
  return [...notes.filter((n) => !ids.has(n.id)), ...made];
}

/**
 * A struck note that begins and lasts otherwise, cut and tied as it must be written. Under another id it is the same key struck again,
 * and nothing is sung or slurred there.
 */
export function retimed(
  notes: readonly Note[],
  struck: SoundingNote,
  onset: Ticks,
  duration: Ticks,
  measures: readonly Measure[],
  id = struck.id,
): Note[] {
  const first = notes.find((n) => n.id === struck.id);
  if (!first) return [];
  const { tie: _tie, tuplet: _tuplet, brackets: _brackets, lyrics, slurs, ...note } = first;
  const isFirst = id === struck.id;
  return notate(measures, [
    {
      ...note,
      ...(isFirst && lyrics ? { lyrics } : {}),
      ...(isFirst && slurs ? { slurs } : {}),
      id,
      onset,
      duration,
    },
  ]);
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
  const inChord = (chord ? chordTones(chord) : []).map(fromFifths).find((p) => p.step === moved.step);
  return { ...moved, alter: inChord?.alter ?? alterInKey(moved.step, keyAt(measure, tick)) };
}

/** Semitones from the lowest to the highest of some pitches. */
export const widthOf = (pitches: readonly Pitch[]): number => {
  const keys = pitches.map(toMidi);
  return Math.max(...keys) - Math.min(...keys);
};
