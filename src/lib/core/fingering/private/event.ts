/** What one hand has to do at one moment, as data: the keys it strikes, those it still holds, and how free it is to move. */
import type { Ticks } from '../../score/ticks';

export type Hand = 'right' | 'left';

/** One key under a finger. `out` rises outwards from the thumb's side: MIDI upwards in the right hand, downwards in the left. */
export interface HeldKey {
  readonly id: string;
  readonly midi: number;
  readonly isBlack: boolean;
  readonly out: number;
  readonly struck: boolean;
  /** Other notes that one finger plays with this: the same key in another voice, or earlier strokes of a key that is repeated. */
  readonly twins?: readonly Twin[];
}

export interface Twin {
  readonly id: string;
  readonly onset: Ticks;
}

/** Ids of everything that a key stands for. */
export const idsOf = ({ id, twins }: HeldKey): readonly string[] =>
  twins ? [id, ...twins.map((t) => t.id)] : [id];

/**
 * Everything one hand has to do at one onset. Keys in order outwards. What is struck again as it was, slowly enough for its fingers
 * to stay, is one event: it asks nothing new of the hand.
 */
export interface Event {
  readonly onset: Ticks;
  /** When it is struck for the last time. */
  readonly last: Ticks;
  readonly keys: readonly HeldKey[];
  /**
   * How strongly it is bound to the event before: 1 joined, less after a short rest or a staccato, 0 where the hand is
   * free to begin anew (after a phrase end, a rest of a beat, a long note before a leap).
   */
  readonly legato: number;
  /** Where the hand lifts and takes another shape: from chord to chord in an accompaniment. No legato is owed. */
  readonly lifts: boolean;
  /** A measure or a group of its beats begins with it. */
  readonly opensGroup: boolean;
  /** A slur joins it to the event before. */
  readonly slurred: boolean;
  /** Struck again so quickly that the finger changes. */
  readonly quickRepeat: boolean;
  /** So soon after the event before that no finger is carried far. */
  readonly quick: boolean;
  /** Ids of notes that had to be let go here, because the hand cannot hold them with what it strikes. */
  readonly letGo: readonly string[];
}
