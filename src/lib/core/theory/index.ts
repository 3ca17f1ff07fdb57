/**
 * Spelling, keys and chords. Everything spelled stands on the line of fifths; C is 0, G 1, F −1.
 *
 * @example
 * keyName(parseKey('F#m')); // => "F♯ minor"
 * chordSymbol(parseChord('Bbmaj7/D')); // => "B♭maj7/D"
 * chordToneNames(parseChord('C7')); // => "C E G B♭"
 * degree(parseChord('G7'), parseKey('C')); // => "V7"
 */
export { chordSymbol, chordToneNames, degree, inversion, isDiatonic, type Chord } from './chord';
export { parseChord } from './chordName';
export { keyCode, keyName, parseKey, type Key } from './key';
export { fromFifths, pitchClass, toFifths, type Fifths } from './fifths';
