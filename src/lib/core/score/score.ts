/**
 * The music as it is written: a frame of measures that all parts share, and in each part the written notes.
 * Everything is plain immutable data; whatever changes a score returns a new one.
 *
 * A note that is tied over a barline is two written notes. `soundingNotes` in query.ts joins them for whoever
 * asks what the hand does rather than what stands on the page.
 */
import type { Chord } from '../theory/chord';
import type { Key } from '../theory/key';
import type { Pitch } from '../theory/pitch';
import type { Ticks } from './ticks';

export interface Score {
  readonly title: string;
  readonly composer: string;
  /** A line about rights, as the source has it. */
  readonly rights?: string;
  /** Quarter notes per minute at the start; 0 when the source does not say. */
  readonly tempo: number;
  /** Tempos after the start. */
  readonly tempoChanges?: readonly TempoMark[];
  readonly measures: readonly Measure[];
  readonly parts: readonly Part[];
  readonly chordSymbols: readonly ChordSymbol[];
  readonly pedals: readonly PedalMark[];
  /** Where the piece is at home as the teacher has said, over what its notes tell. */
  readonly home?: Key;
  /** The form as the teacher has decided it, over what the source or its analysis says; by index of the first measure. */
  readonly sectionStarts?: readonly {
    readonly measure: number;
    readonly name?: string | undefined;
    readonly role?: Role | undefined;
  }[];
}

/** What a section of a song is for. */
export const ROLES = ['intro', 'verse', 'chorus', 'bridge', 'ending'] as const;
export type Role = (typeof ROLES)[number];

export interface Part {
  readonly id: string;
  readonly name: string;
  /** 1 for a melody or a voice, 2 for a keyboard (1 upper, 2 lower). */
  readonly staves: number;
  /** Sorted by onset, then staff, voice and pitch. */
  readonly notes: readonly Note[];
  /** Clefs as the source has them; without any, each staff gets the clef that suits its notes. */
  readonly clefs?: readonly ClefMark[];
  /** Dynamics, hairpins, words and octave shifts, in order of time. */
  readonly marks?: readonly Mark[];
  /** What the teacher, or the reader for her, takes this part to be. */
  readonly role?: PartRole;
  /** General MIDI program that it is played with, 0 to 127, where the source says so. */
  readonly instrument?: number;
  /** How loud it is played in the mean, from 0 to 1, where the source says so. */
  readonly loudness?: number;
}

/** `melody` is sung or played by someone; `keyboard` is what the two hands play; `other` is read and left alone. */
export type PartRole = 'melody' | 'keyboard' | 'other';

export interface ClefMark {
  readonly onset: Ticks;
  readonly staff: number;
  readonly sign: 'G' | 'F' | 'C';
  /** Line of the staff on which the sign stands, 1 the lowest. */
  readonly line: number;
  /** Octaves that the clef shifts: −1 for a treble clef with an 8 below. */
  readonly octaves?: number;
}

interface MarkPlace {
  readonly onset: Ticks;
  readonly staff: number;
  readonly above?: boolean;
}

/** What stands beside the notes and belongs to no single one of them. */
export type Mark =
  | (MarkPlace & { readonly kind: 'dynamic'; readonly value: string })
  | (MarkPlace & {
      readonly kind: 'hairpin';
      readonly type: 'crescendo' | 'diminuendo' | 'stop';
      readonly number: number;
    })
  | (MarkPlace & { readonly kind: 'words'; readonly text: string })
  /** Words of a song that has chords but no notes to hang them on. */
  | (MarkPlace & { readonly kind: 'lyrics'; readonly text: string })
  | (MarkPlace & {
      readonly kind: 'octave shift';
      /** Which way the notes are written away from where they sound: `down` for 8va. */
      readonly type: 'up' | 'down' | 'stop';
      /** 8 for one octave, 15 for two. */
      readonly size: number;
      readonly number: number;
    });

export interface TempoMark {
  readonly onset: Ticks;
  /** Quarter notes per minute. */
  readonly tempo: number;
  /** The number is not printed: it is a step of a ritardando, or of free playing, that only sounds. */
  readonly isHeard?: boolean;
}

export interface Measure {
  /**
   * Names the measure in the source, whatever stands before it: "m0" for the first that the file holds, "i0" for the first of
   * an introduction that was put in front. What is decided for a measure and what is learned in it name it by this.
   */
  readonly id: string;
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
  /** Changes of key or metre after its beginning. `time` and `key` are those of its beginning. */
  readonly changes?: readonly MeasureChange[];
  readonly section?: string;
  readonly barline?: 'double' | 'final';
  readonly repeatStart?: boolean;
  readonly repeatEnd?: boolean;
  /** How often the repeated measures are played in all, where it is not twice. */
  readonly repeatTimes?: number;
  /** Numbers of the ending that begins here: "1", "1, 2". */
  readonly ending?: string;
  /** The numbered ending closes with this measure. */
  readonly endingEnd?: boolean;
  /** Marks of the way through the piece that are not repeat signs. */
  readonly route?: Route;
}

export interface MeasureChange {
  /** From the beginning of the score. */
  readonly onset: Ticks;
  readonly key?: Key;
  readonly time?: TimeSignature;
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
  /** How its notes fall into groups where equal beats do not say it, in notes of `beatType`: 2, 2, 3 for seven eighths. */
  readonly groups?: readonly number[];
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
  /** Unique in the part: a voice that uses two staves is one voice that crosses between them. */
  readonly voice: number;
  readonly tie?: 'start' | 'stop' | 'both';
  readonly tuplet?: Tuplet;
  /** Where brackets of tuplets begin and end, as the source has them; otherwise they follow from `tuplet`. */
  readonly brackets?: readonly TupletBracket[];
  readonly grace?: Grace;
  /** A small note that shows another player's part; it is not played. */
  readonly cue?: boolean;
  readonly articulations?: readonly Articulation[];
  readonly ornaments?: readonly Ornament[];
  readonly arpeggio?: 'plain' | 'up' | 'down' | 'bracket';
  readonly fermata?: boolean;
  /** It belongs to a voice that is brought out: it sounds louder than what is around it. */
  readonly isBroughtOut?: true;
  readonly slurs?: readonly Slur[];
  /** 1 thumb to 5 little finger. */
  readonly finger?: number;
  /** The finger that takes the key over while it is held. */
  readonly substitution?: number;
  readonly lyrics?: readonly Lyric[];
  /** The accidental is printed although the measure does not need it; in brackets where it says so. */
  readonly reminder?: 'plain' | 'brackets';
  /** Set where transposing chose the enharmonic twin to avoid a double accidental: the way back undoes it. */
  readonly respelled?: 1 | -1;
}

/** `actual` notes in the time of `normal`: 3 in 2 for a triplet; nested tuplets multiply. */
export interface Tuplet {
  readonly actual: number;
  readonly normal: number;
}

export interface TupletBracket {
  readonly type: 'start' | 'stop';
  /** Tells nested brackets apart. */
  readonly number: number;
  /** The ratio of this bracket alone, where it is one of several. */
  readonly ratio?: Tuplet;
}

export interface Grace {
  /** Struck through: as short as can be, before the beat where no length is said. */
  readonly slash: boolean;
  /** What it takes of its main note on the beat, where a source says that. */
  readonly length?: Ticks;
  /** As short as can be, on the beat: where a source does not say that it takes a part of its main note. */
  readonly short?: boolean;
  /** The value it is written with: 8 an eighth. */
  readonly type: number;
  /** Place among the grace notes of its main note, from 0; notes of a grace chord share it. */
  readonly order: number;
  /** Played after the note at its onset instead of before it. */
  readonly after?: boolean;
}

export interface Slur {
  readonly type: 'start' | 'stop';
  /** Tells slurs apart that overlap. */
  readonly number: number;
}

/** Articulations by the names that MusicXML gives them. */
export const ARTICULATIONS = [
  'accent',
  'strong-accent',
  'staccato',
  'tenuto',
  'detached-legato',
  'staccatissimo',
  'spiccato',
  'scoop',
  'plop',
  'doit',
  'falloff',
  'breath-mark',
  'caesura',
  'stress',
  'unstress',
  'soft-accent',
] as const;

export type Articulation = (typeof ARTICULATIONS)[number];

/** Ornaments by the names that MusicXML gives them. */
export const ORNAMENTS = [
  'trill-mark',
  'turn',
  'delayed-turn',
  'inverted-turn',
  'delayed-inverted-turn',
  'vertical-turn',
  'shake',
  'wavy-line',
  'mordent',
  'inverted-mordent',
  'schleifer',
  'tremolo',
] as const;

export interface Ornament {
  readonly kind: (typeof ORNAMENTS)[number];
  /** Of a tremolo or a wavy line. */
  readonly type?: 'single' | 'start' | 'stop' | 'continue';
  /** Beams of a tremolo. */
  readonly beams?: number;
  /** The accidental written with it. */
  readonly alter?: number;
}

export interface Lyric {
  /**
   * Counts have a line of their own above the words; names of notes, where they are wanted, one below them. What is sung over a chord
   * of a chart is `sung`: it is spread over the beats of the chord.
   */
  readonly line: 'counts' | 'words' | 'names' | 'sung';
  readonly verse: number;
  readonly text: string;
  readonly syllabic: 'single' | 'begin' | 'middle' | 'end';
  /** Held over the following notes. */
  readonly extend?: boolean;
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
