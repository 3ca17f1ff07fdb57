import type { Score } from '../score/score';

/** What every reader of a format gives back: the music, and one sentence for each thing that could not be used. */
export interface ReadResult {
  readonly score: Score;
  readonly warnings: readonly string[];
}
