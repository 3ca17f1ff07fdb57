/**
 * The music as it is written: a frame of measures that all parts share, and in each part the written notes.
 * Everything is plain immutable data; whatever changes a score returns a new one.
 *
 * A note that is tied over a barline is two written notes. `soundingNotes` in query.ts joins them for whoever
 * asks what the hand does rather than what stands on the page.
 */
import type { Chord } from '../theory/chord';
import type { Key } from '../theory/key';
import type { Pitch } from './pitch';
import type { Ticks } from './ticks';

export interface Score {
  readonly title: string;
  readonly composer: string;
  /** Quarter notes per minute at the start; 0 when the source does not say. */
  readonly tempo: number;
  readonly measures: readonly Measure[];
  readonly parts: readonly Part[];
  readonly chordSymbols: readonly ChordSymbol[];
  readonly pedals: readonly PedalMark[];
}

export interface Part {
  readonly id: string;
  readonly name: string;
  /** 1 for a melody or a voice, 2 for a keyboard (1 upper, 2 lower). */
  readonly staves: number;
  /** Sorted by onset, then staff, voice and pitch. */
  readonly notes: readonly Note[];
}

export interface Measure {
  /** Position in the score, from 0. */
  readonly index: number;
  /** The number as printed: "1", "0" for a pickup, "X1". */
  readonly number: string;
  /** Start, from the beginning of the score. */
  readonly start: Ticks;
  /** What the measure really holds; shorter than its metre in a pickup. */
  readonly length: Ticks;
  readonly time: TimeSignature;
  readonly key: Key;
  /**
   * Where in a full measure this one begins: 0 for most, three quarters for a quarter-note pickup in 4/4, and
   * whatever the first half took for the second half of a measure that a repeat sign cuts in two.
   */
  readonly beginsAt: Ticks;
  readonly section?: string;
  readonly barline?: 'double' | 'final';
  readonly repeatStart?: boolean;
  readonly repeatEnd?: boolean;
  /** Numbers of the ending that begins here: "1", "1, 2". */
  readonly ending?: string;
  /** The numbered ending closes with this measure. */
  readonly endingEnd?: boolean;
  /** Marks of the way through the piece that are not repeat signs. */
  readonly route?: Route;
}

/** Signs that send the player elsewhere. `segno` and `coda` stand at the start of their measure, the others at its end. */
export interface Route {
  readonly segno?: boolean;
  readonly coda?: boolean;
  readonly fine?: boolean;
  readonly toCoda?: boolean;
  readonly jump?: 'da capo' | 'dal segno';
}

export interface TimeSignature {
  readonly beats: number;
  readonly beatType: number;
  readonly symbol?: 'common' | 'cut';
}

export interface Note {
  /** Unique in the score and stable: the source never changes, and what is made from a note keeps its id. */
  readonly id: string;
  /** From the beginning of the score. */
  readonly onset: Ticks;
  /** 0 for a grace note. */
  readonly duration: Ticks;
  readonly pitch: Pitch;
  readonly staff: number;
  readonly voice: number;
  readonly tie?: 'start' | 'stop' | 'both';
  readonly tuplet?: Tuplet;
  readonly grace?: boolean;
  readonly articulations?: readonly Articulation[];
  readonly fermata?: boolean;
  readonly slurStart?: boolean;
  readonly slurStop?: boolean;
  /** 1 thumb to 5 little finger. */
  readonly finger?: number;
  readonly lyrics?: readonly Lyric[];
  /** Set where transposing chose the enharmonic twin to avoid a double accidental: the way back undoes it. */
  readonly respelled?: 1 | -1;
}

/** `actual` notes in the time of `normal`: 3 in 2 for a triplet. */
export interface Tuplet {
  readonly actual: number;
  readonly normal: number;
}

export type Articulation = 'staccato' | 'staccatissimo' | 'tenuto' | 'accent' | 'strong-accent';

export interface Lyric {
  /** Counts have a line of their own above the words. */
  readonly line: 'counts' | 'words';
  readonly verse: number;
  readonly text: string;
  readonly syllabic: 'single' | 'begin' | 'middle' | 'end';
}

export interface ChordSymbol {
  readonly onset: Ticks;
  /** null says "no chord here". */
  readonly chord: Chord | null;
}

export interface PedalMark {
  readonly onset: Ticks;
  readonly type: 'start' | 'change' | 'stop';
}
