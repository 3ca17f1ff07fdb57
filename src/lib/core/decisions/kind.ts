/**
 * What a kind of decision is: one module per kind says everything about it, and the registry is the list of them. The stages
 * read decisions through it; the list of decisions, what waits, giving back, the bench's controls and keys, and the command
 * line follow from it.
 */
import type { z } from 'zod';
import type { LevelContract } from '../arrange/levels';
import type { StudioPattern } from '../arrange/teacherPattern';
import type { Pitch } from '../theory/pitch';
import type { Measure, Note, Part } from '../score/score';
import type { Ticks } from '../score/ticks';
import type { Chord } from '../theory/chord';
import type { Transposition } from '../transpose/transpose';
import type { Scope } from './anchor';

/** What stands where something is about to be decided. */
export interface Situation {
  readonly measure: Measure;
  /** How far what is decided will reach, where that is chosen already. */
  readonly scope?: Scope;
  /** The note in hand, where the decision is about a note. */
  readonly note?: Note | undefined;
  readonly level: number;
  /** What the level allows, where limits of the studio's own count; else those of its number that ships. */
  readonly contract?: LevelContract;
  /** Patterns that the teacher has written. */
  readonly patterns?: readonly StudioPattern[];
  /** The source has an accompaniment of its own. */
  readonly hasAccompaniment: boolean;
  /** The lines of the source that can have the melody. */
  readonly melodyLines: readonly string[];
  readonly isSingAlong: boolean;
  /** The source has repeat signs. */
  readonly hasRepeats?: boolean;
  /** How the version stands to its source. */
  readonly transposition?: Transposition;
}

/** What is decided of one kind: note by note (by the id of the struck note), and what holds in each measure, by its index. */
export interface Held<Value> {
  readonly notes: ReadonlyMap<string, Value>;
  readonly measures: readonly (Value | undefined)[];
}

/** The music that a kind changes or marks. */
export interface Passage {
  readonly measures: readonly Measure[];
  /** The written notes that a struck one is made of, itself first. */
  readonly tied: (struck: string) => readonly string[];
  readonly chordAt: (tick: Ticks) => Chord | null;
  /** A pitch of the source as it sounds in the key of the version. */
  readonly inKey: (pitch: Pitch) => Pitch;
  /** Widest stretch of a hand by its staff (1 right, 2 left), in semitones. */
  readonly reach: (staff: number) => number;
  /** Most keys that the right hand strikes or holds at once at the level. */
  readonly rightNotes: number;
  /** Parks what was decided about a note, or holds in a measure (by its index), with the reason. */
  readonly refuse: (place: string | number, why: string) => void;
}

/** One key on the bench that decides at the note, or in the measure, in hand. */
export interface DecisionKey<Value> {
  /** As a key event names it: "x", "Shift+o". */
  readonly press: string;
  /** What it does, for the list of keys and for its button: "the other hand plays this note". */
  readonly does: string;
  /** The value that the key decides on; undefined gives back what was decided. */
  readonly next: (current: Value | undefined, at: Situation) => Value | undefined;
}

export interface Standing {
  /** Its keys are buttons beside the note in hand; of a chord only where the note is one of several. */
  readonly note?: 'button' | 'of chords';
  /** A line of its own in the panel of a measure: a list of its choices, or a field of another part. */
  readonly measure?: 'list' | 'field';
}

export interface DecisionKind<Id extends string = string, Value = unknown> {
  readonly id: Id;
  /** What is decided, as a heading: "Finger", "Left hand". */
  readonly name: string;
  readonly value: z.ZodType<Value>;
  readonly scopes: readonly Scope[];
  /** What was decided, in words, without where: "finger 3". */
  readonly says: (value: Value) => string;
  /** How it changes notes: the written notes of both hands, from and to. */
  readonly apply?: (notes: readonly Note[], held: Held<Value>, passage: Passage) => readonly Note[];
  /** How it marks the finished part: nothing but what stands on the page changes. A kind with neither is read by a stage of its own. */
  readonly mark?: (part: Part, held: Held<Value>, passage: Passage) => Part;
  /** What can be chosen in a situation, with its name; kinds without it are decided by keys or written. */
  readonly choices?: (at: Situation) => readonly (readonly [Value, string])[];
  /** What can't be chosen in a situation, with its name and, in a clause, why. */
  readonly refused?: (at: Situation) => readonly (readonly [name: string, why: string])[];
  /** For kinds that are written in words: from what is typed (undefined where it says nothing that can be taken) and back. */
  readonly written?: {
    readonly hint: string;
    readonly read: (text: string, at: Situation) => Value | undefined;
    readonly show: (value: Value, at: Situation) => string;
  };
  /** It is decided from one note to another: a slur, a hairpin. `choices` then name what begins; this makes the value. */
  readonly spans?: (chosen: Value, lastNote: string) => Value;
  readonly keys?: readonly DecisionKey<Value>[];
  /** Where it stands on the bench beside the list that Enter opens. */
  readonly stands?: Standing;
  /** It is decided of one note at a time, however many are chosen. */
  readonly isOfOneNote?: true;
  /** Other words by which teachers look for it: "arpeggio" for the left hand. */
  readonly words?: string;
  /** The option of the command line that decides it for the whole version: "texture" for --texture. */
  readonly option?: string;
  /** Other spellings that the option takes. */
  readonly optionNames?: Readonly<Record<string, Value & string>>;
}

/** Names a kind's types once; gives the kind back. */
export const defineKind = <const Id extends string, Value>(
  kind: DecisionKind<Id, Value>,
): DecisionKind<Id, Value> => kind;

/** The value after `current` in a list; undefined after the last one, which gives it back. */
export function following<Value>(values: readonly Value[], current: Value | undefined): Value | undefined {
  return current === undefined ? values[0] : values[values.indexOf(current) + 1];
}
