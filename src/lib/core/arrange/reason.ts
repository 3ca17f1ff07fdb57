/** Why something in a version is as it is, and what of it is counted. */

/** What a reason is counted as, where it is counted. */
export type Loss = 'ornament' | 'no room' | 'off the keyboard';

export interface ArrangeReason {
  readonly measure: number;
  readonly notes: readonly string[];
  readonly reason: string;
  readonly loss?: Loss;
}

/** The same, with what it is about. */
export interface Reason {
  readonly measure: number;
  readonly about: 'melody' | 'right hand' | 'left hand' | 'register';
  /** Ids of the notes it speaks of; may be empty. */
  readonly notes: readonly string[];
  readonly text: string;
  readonly loss?: Loss;
}
