/**
 * The chords we know, as data. `tones` are places on the line of fifths from the root: 1 a perfect fifth, 4 a major
 * third, −3 a minor third, −2 a minor seventh, 5 a major seventh. `musicxml` is the format's name for the kind.
 */
export interface ChordKind {
  readonly symbol: string;
  readonly musicxml: string;
  readonly name: string;
  readonly tones: readonly number[];
  readonly romanMinor: boolean;
}

export const CHORD_KINDS = {
  major: { symbol: '', musicxml: 'major', name: 'major', tones: [0, 4, 1], romanMinor: false },
  minor: { symbol: 'm', musicxml: 'minor', name: 'minor', tones: [0, -3, 1], romanMinor: true },
  diminished: {
    symbol: 'dim',
    musicxml: 'diminished',
    name: 'diminished',
    tones: [0, -3, -6],
    romanMinor: true,
  },
  augmented: { symbol: 'aug', musicxml: 'augmented', name: 'augmented', tones: [0, 4, 8], romanMinor: false },
  dominant7: { symbol: '7', musicxml: 'dominant', name: 'seventh', tones: [0, 4, 1, -2], romanMinor: false },
  major7: {
    symbol: 'maj7',
    musicxml: 'major-seventh',
    name: 'major seventh',
    tones: [0, 4, 1, 5],
    romanMinor: false,
  },
  minor7: {
    symbol: 'm7',
    musicxml: 'minor-seventh',
    name: 'minor seventh',
    tones: [0, -3, 1, -2],
    romanMinor: true,
  },
  minorMajor7: {
    symbol: 'm(maj7)',
    musicxml: 'major-minor',
    name: 'minor with a major seventh',
    tones: [0, -3, 1, 5],
    romanMinor: true,
  },
  diminished7: {
    symbol: 'dim7',
    musicxml: 'diminished-seventh',
    name: 'diminished seventh',
    tones: [0, -3, -6, -9],
    romanMinor: true,
  },
  halfDiminished: {
    symbol: 'm7♭5',
    musicxml: 'half-diminished',
    name: 'half-diminished',
    tones: [0, -3, -6, -2],
    romanMinor: true,
  },
  sixth: { symbol: '6', musicxml: 'major-sixth', name: 'sixth', tones: [0, 4, 1, 3], romanMinor: false },
  minorSixth: {
    symbol: 'm6',
    musicxml: 'minor-sixth',
    name: 'minor sixth',
    tones: [0, -3, 1, 3],
    romanMinor: true,
  },
  suspended4: {
    symbol: 'sus4',
    musicxml: 'suspended-fourth',
    name: 'suspended fourth',
    tones: [0, -1, 1],
    romanMinor: false,
  },
  suspended2: {
    symbol: 'sus2',
    musicxml: 'suspended-second',
    name: 'suspended second',
    tones: [0, 2, 1],
    romanMinor: false,
  },
  ninth: {
    symbol: '9',
    musicxml: 'dominant-ninth',
    name: 'ninth',
    tones: [0, 4, 1, -2, 2],
    romanMinor: false,
  },
  major9: {
    symbol: 'maj9',
    musicxml: 'major-ninth',
    name: 'major ninth',
    tones: [0, 4, 1, 5, 2],
    romanMinor: false,
  },
  minor9: {
    symbol: 'm9',
    musicxml: 'minor-ninth',
    name: 'minor ninth',
    tones: [0, -3, 1, -2, 2],
    romanMinor: true,
  },
  augmented7: {
    symbol: 'aug7',
    musicxml: 'augmented-seventh',
    name: 'augmented seventh',
    tones: [0, 4, 8, -2],
    romanMinor: false,
  },
  eleventh: {
    symbol: '11',
    musicxml: 'dominant-11th',
    name: 'eleventh',
    tones: [0, 4, 1, -2, 2, -1],
    romanMinor: false,
  },
  minor11: {
    symbol: 'm11',
    musicxml: 'minor-11th',
    name: 'minor eleventh',
    tones: [0, -3, 1, -2, 2, -1],
    romanMinor: true,
  },
  thirteenth: {
    symbol: '13',
    musicxml: 'dominant-13th',
    name: 'thirteenth',
    tones: [0, 4, 1, -2, 2, 3],
    romanMinor: false,
  },
  major13: {
    symbol: 'maj13',
    musicxml: 'major-13th',
    name: 'major thirteenth',
    tones: [0, 4, 1, 5, 2, 3],
    romanMinor: false,
  },
  minor13: {
    symbol: 'm13',
    musicxml: 'minor-13th',
    name: 'minor thirteenth',
    tones: [0, -3, 1, -2, 2, 3],
    romanMinor: true,
  },
  power: { symbol: '5', musicxml: 'power', name: 'open fifth', tones: [0, 1], romanMinor: false },
} as const satisfies Record<string, ChordKind>;

export type ChordKindId = keyof typeof CHORD_KINDS;
