import { accidentalText } from '../score/pitch';
import { CHORD_KINDS, type ChordKind, type ChordKindId } from './chordKinds';
import { fromFifths, pitchClass, type Fifths } from './fifths';
import { scaleFifths, tonicFifths, type Key } from './key';

/** A chord by its spelled root and kind; `bass` only where it is not the root. Places are on the line of fifths. */
export interface Chord {
  readonly root: Fifths;
  readonly kind: ChordKindId;
  readonly bass?: Fifths;
}

const kindOf = (chord: Chord): ChordKind => CHORD_KINDS[chord.kind];

/** Spelled chord tones, root first. */
export const chordTones = (chord: Chord): Fifths[] => kindOf(chord).tones.map((tone) => chord.root + tone);

/** The tone that must sound lowest: the named bass, else the root. */
export const bassOf = (chord: Chord): Fifths => chord.bass ?? chord.root;

const tpcName = (fifths: Fifths): string => {
  const { step, alter } = fromFifths(fifths);
  return step + accidentalText(alter);
};

/** "Am7", "B♭/D" */
export const chordSymbol = (chord: Chord): string =>
  tpcName(chord.root) + kindOf(chord).symbol + (chord.bass === undefined ? '' : `/${tpcName(chord.bass)}`);

/** Chord tones by name: "A C E". */
export const chordToneNames = (chord: Chord): string => chordTones(chord).map(tpcName).join(' ');

export const sameChord = (a: Chord | null, b: Chord | null): boolean =>
  a === b || (!!a && !!b && a.root === b.root && a.kind === b.kind && bassOf(a) === bassOf(b));

/** 0 root in the bass, 1 the third, 2 the fifth, 3 the seventh, −1 a bass outside the chord. */
export const inversion = (chord: Chord): number =>
  chordTones(chord).findIndex((tone) => pitchClass(tone) === pitchClass(bassOf(chord)));

const ROMAN = ['I', 'II', 'III', 'IV', 'V', 'VI', 'VII'];

/** Degree of the chord's root in a key as a Roman numeral, lower case for minor thirds: "vi7", "♭VII". */
export function degree(chord: Chord, key: Key): string {
  const scale = scaleFifths(key);
  const distance = chord.root - tonicFifths(key);
  // Letters above the tonic: four fifths make two letters, and so on round the seven.
  const letter = (((distance * 4) % 7) + 7) % 7;
  const alter = Math.round((chord.root - scale[letter]!) / 7);
  const kind = kindOf(chord);
  const numeral = kind.romanMinor ? ROMAN[letter]!.toLowerCase() : ROMAN[letter]!;
  const figure = kind.symbol
    .replace(/^m(?!aj)/, '')
    .replace('dim', '°')
    .replace('aug', '+')
    .replace(/^7♭5$/, 'ø7');
  return accidentalText(alter) + numeral + figure;
}

/** Whether every tone of the chord belongs to the key (harmonic minor's leading note counts as belonging). */
export function isDiatonic(chord: Chord, key: Key): boolean {
  const scale = new Set(scaleFifths(key).map(pitchClass));
  if (key.mode === 'minor') scale.add(pitchClass(tonicFifths(key) + 5));
  return chordTones(chord).every((tone) => scale.has(pitchClass(tone)));
}
