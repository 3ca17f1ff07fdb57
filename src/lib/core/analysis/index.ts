/**
 * What a piece is made of: key, chords, form, melody.
 *
 * @example
 * keyOf(song); // => {"fifths":0,"mode":"major"}
 * chordsOf(song).map((c) => c.chord.root); // => [0,-1,1,0]
 * formOf(song).newMeasures; // => 4
 * findMelody(song).lines[0]; // => "upper"
 */
export { formOf, type Form, type Phrase, type Section } from './form';
export { chordsOf, type ChordSpan } from './harmony';
export { keyOf } from './home';
export { accompanimentOf, findMelody, type Melody, type MelodyLine } from './melody';
export { reportOf, type PieceReport } from './report';
export { sectionStartsSchema, type SectionStart } from './sections';
