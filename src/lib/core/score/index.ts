/**
 * The music as it is written, and what is asked of it. Time is ticks, 10080 to the quarter; pitch is MIDI or letter, alteration, octave.
 *
 * @example
 * pitchName({ step: 'F', alter: 1, octave: 4 }); // => "F♯4"
 * toMidi({ step: 'C', alter: 0, octave: 4 }); // => 60
 * beatLength({ beats: 6, beatType: 8 }); // => 15120
 * measureId(4); // => "m4"
 * quarters(15120); // => "3/2"
 */
export type { ChordSymbol, Measure, Note, Part, PedalMark, Score } from './score';
export { introductionId, measureId } from './measureId';
export { beatLength, endOf, isCompound, measureLength } from './metre';
export { parsePitch, pitchName, toMidi, type Pitch } from './pitch';
export { byMeasure, byOnset, keyboardPart, measureAt, soundingNotes, type SoundingNote } from './query';
export { quarters, TICKS_PER_QUARTER, type Ticks } from './ticks';
export { playingOrder } from './unfold';
