/**
 * What a kind of decision is: one module per kind says everything about it, and the registry is the list of them. The stages
 * read decisions through it; the list of decisions, what waits, giving back, the bench's controls and keys, and the command
 * line follow from it.
 */
import type { z } from 'zod';
import type { Measure, Note } from '../score/score';
import type { Scope } from './anchor';

/** The stages of the pipeline that read decisions. */
export type DecisionStage = 'arrange' | 'hands' | 'fingers' | 'counts' | 'pedal';

/** What stands where something is about to be decided. */
export interface Situation {
  readonly measure: Measure;
  /** The note in hand, where the decision is about a note. */
  readonly note?: Note | undefined;
  readonly level: number;
  /** The source has an accompaniment of its own. */
  readonly hasAccompaniment: boolean;
  /** The lines of the source that can have the melody. */
  readonly melodyLines: readonly string[];
  readonly isSingAlong: boolean;
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

export interface DecisionKind<Id extends string = string, Value = unknown> {
  readonly id: Id;
  /** What is decided, as a heading: "Finger", "Left hand". */
  readonly name: string;
  readonly value: z.ZodType<Value>;
  readonly scopes: readonly Scope[];
  readonly stage: DecisionStage;
  /** What was decided, in words, without where: "finger 3". */
  readonly says: (value: Value) => string;
  /**
   * How it changes notes, for kinds of the stage "hands". Takes and gives the written notes of both hands; `values` has what is
   * decided by the id of each struck note, `tied` the written notes that a struck one is made of.
   */
  readonly apply?: (
    notes: readonly Note[],
    values: ReadonlyMap<string, Value>,
    tied: (struck: string) => readonly string[],
  ) => readonly Note[];
  /** What can be chosen in a situation, with its name; kinds without it are decided by keys or written. */
  readonly choices?: (at: Situation) => readonly (readonly [Value, string])[];
  readonly keys?: readonly DecisionKey<Value>[];
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
