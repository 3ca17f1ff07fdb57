/** What arranging takes and gives, and what its styles have in common. */
import type { Form } from '../analysis/form';
import type { Idiom } from '../analysis/idioms';
import type { ChordSpan } from '../analysis/harmony';
import type { Melody, MelodyLine } from '../analysis/melody';
import type { Hand } from '../fingering/events';
import type { SoundingNote } from '../score/query';
import type { ChordSymbol, ClefMark, Mark, Note, Score } from '../score/score';
import { speaksOfTempo } from '../score/tempoWords';
import type { Fold } from './private/foldMelody';
import type { LevelContract } from './levels';
import type { ArrangeReason, Reason } from './reason';
import type { MelodyChange } from './private/reduceMelody';
import type { ChordFigure } from './singAlong';
import type { MeasureStretches } from './private/stretches';
import type { Texture } from './textures';

/** What the hands do with a song, by their names: they play its melody, or chords for who sings it. */
export const SONG_STYLES = { solo: 'Solo', 'sing-along': 'Sing-along' } as const;
export type SongStyle = keyof typeof SONG_STYLES;
export const SONG_STYLE_IDS = Object.keys(SONG_STYLES) as [SongStyle, ...SongStyle[]];

export interface ArrangeSettings {
  readonly contract: LevelContract;
  /** Whether the melody is played in a measure, or chords carry its singer. */
  readonly styleIn: (measure: number) => SongStyle;
  /** Measures (by index) that belong to the players, between verses: whatever a level replaces, there it is thinned. */
  readonly isInstrumental: (measure: number) => boolean;
  /** What is wished for in a measure; null leaves it to the level. */
  readonly textureIn: (measure: number) => Texture | null;
  /** The line that has the melody, where the teacher says so. */
  readonly melodyLineIn: (measure: number) => MelodyLine | undefined;
  /** Rhythm of the chords of a sing-along in a measure; null leaves it to the level. */
  readonly rhythmIn: (measure: number) => ChordFigure | null;
  /** Semitones per hand. */
  readonly reach: Readonly<Record<Hand, number>>;
  readonly keyboard: { readonly low: number; readonly high: number };
  readonly form: Form;
  readonly idiom: Idiom;
  /** The source is within the level as it stands: then it stays as it is. */
  readonly isWithin?: boolean;
  /** 0 as the level has it; 1 without filling; more: with so many of the busiest textures passed over. */
  readonly reduction?: number;
}

/** Steps by which an arrangement can be reduced: the last gives the left hand of the source, thinned, for a texture that is harder. */
export const AS_SOURCE = 4;

export interface Arranged {
  /** Written notes of two staves. */
  readonly notes: readonly Note[];
  readonly marks: readonly Mark[];
  /** Clefs of the source, where its music is played as written; elsewhere they follow from the notes. */
  readonly clefs?: readonly ClefMark[];
  /** Chord names where the hands play them. */
  readonly chordSymbols: readonly ChordSymbol[];
  readonly reasons: readonly Reason[];
  readonly melody: Melody;
  readonly melodyChanges: readonly MelodyChange[];
  readonly folds: readonly Fold[];
  readonly stretches: readonly MeasureStretches[];
  /** Everything besides the melody that the source has for two hands. */
  readonly accompaniment: readonly SoundingNote[];
  /** No melody is played, but in instrumentals: the chords carry a singer. */
  readonly isSingAlong: boolean;
  /** Measures (by index) in which the chords carry a singer. */
  readonly sungMeasures: ReadonlySet<number>;
  /** Measures in which the left hand plays what the source has. */
  readonly ownMeasures: ReadonlySet<number>;
}

/** The hands of one style. */
export type ArrangedHands = Omit<
  Arranged,
  'melody' | 'accompaniment' | 'stretches' | 'isSingAlong' | 'sungMeasures'
>;

/** Reasons of one hand or line, as the version tells them. */
export const toReasons = (about: Reason['about'], reasons: readonly ArrangeReason[]): Reason[] =>
  reasons.map(({ reason, ...rest }) => ({ ...rest, about, text: reason }));

/** Chord names at the places where the hands have them. */
export const symbolsOf = (
  stretches: readonly MeasureStretches[],
  chords: readonly ChordSpan[],
): ChordSymbol[] => {
  const played = stretches.flatMap((m) => m.stretches.map(({ onset, chord }) => ({ onset, chord })));
  // A chord that goes on over a barline is named once.
  const starts = new Set(chords.map((c) => c.onset));
  return played.filter((s, i) => i === 0 || starts.has(s.onset) || played[i - 1]!.chord !== s.chord);
};

/** Measures (by index) at which the left hand begins afresh: the same phrase is set the same way, whatever came before it. */
export const freshStartsOf = ({ sections, phrases }: Form): ReadonlySet<number> =>
  new Set([...sections, ...phrases].map((p) => p.from));

/** What every level has above the music: where the words of a song are, and what is said of the tempo, each once. */
export function wordsAboveAll(score: Score): Mark[] {
  const marks = score.parts.flatMap((p) => p.marks ?? []);
  const tempi = marks.flatMap((m): Mark[] =>
    m.kind === 'words' && speaksOfTempo(m.text) ? [{ ...m, staff: 1, above: true }] : [],
  );
  const seen = new Set<string>();
  const once = tempi.filter((m) => {
    const name = `${m.onset} ${'text' in m ? m.text.toLowerCase() : ''}`;
    return !seen.has(name) && seen.add(name);
  });
  return [...marks.filter((m) => m.kind === 'lyrics'), ...once];
}
