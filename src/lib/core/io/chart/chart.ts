/** A chord chart as it stands on paper: sections of lines, each a row of chords, beats and barlines with words below. */
import type { TimeSignature } from '../../score/score';
import type { Chord } from '../../theory/chord';
import type { Fifths } from '../../theory/fifths';
import type { Key } from '../../theory/key';

export interface Chart {
  readonly title: string;
  readonly composer: string;
  /** A line about rights. */
  readonly rights?: string;
  readonly key?: Key;
  readonly time?: TimeSignature;
  /** Felt beats per minute; 0 when the chart does not say. */
  readonly tempo: number;
  readonly sections: readonly ChartSection[];
}

export interface ChartSection {
  /** "Verse 1"; empty for what stands before the first name. */
  readonly name: string;
  readonly lines: readonly ChartLine[];
}

export interface ChartLine {
  readonly items: readonly ChartItem[];
  /** Line of the file, from 1. */
  readonly line: number;
}

export interface ChartItem {
  readonly what: ChartSign;
  /** Words that begin here and go on to the next item. */
  readonly words: string;
}

/**
 * A chord (null for "no chord"); a name that no known chord has, with its root where it begins with one; one more beat; a barline;
 * the measure before once more; or words before any chord.
 */
export type ChartSign =
  | { readonly kind: 'chord'; readonly chord: Chord | null }
  | { readonly kind: 'unknown'; readonly name: string; readonly root?: Fifths }
  | { readonly kind: 'beat' }
  | { readonly kind: 'bar'; readonly repeatStart?: boolean; readonly repeatEnd?: boolean }
  | { readonly kind: 'same measure' }
  | { readonly kind: 'words only' };
