/** The fingers that method books give a note, as data. */
import type { Finger } from '../grips';

export interface Convention {
  /** Any of these is as usual. */
  readonly fingers: readonly Finger[];
  /** What departing from it costs. */
  readonly weight: number;
  /** "the scale of D major" */
  readonly of: string;
}
