/**
 * Pedal marks with their reasons, and what blurs under them.
 *
 * @example
 * pedalMarks(soundingNotes(song.parts[0].notes), { measures: song.measures, chords: chordsOf(song), phraseStarts: new Set(), styleIn: () => 'harmony' }).map((m) => m.type); // => ["start","change","change","change","stop"]
 */
export { blursUnder, type Blur } from './blur';
export { PEDAL_STYLE_NAMES, PEDAL_STYLES, pedalMarks, type PedalStyle, type ReasonedMark } from './pedal';
