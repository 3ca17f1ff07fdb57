/** What an ear reports: a key, when, how loud, and how sure it is. */

export interface Keystroke {
  /** Seconds on the ear's own clock. */
  readonly onset: number;
  readonly midi: number;
  /** 1 to 127, where it is known. */
  readonly velocity?: number;
  /** 0 to 1; an instrument is always sure, which is what it counts as where nothing is said. */
  readonly certainty?: number;
}
