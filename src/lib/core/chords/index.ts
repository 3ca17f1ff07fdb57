/**
 * Chords as hands hold them and singers read them: what a version holds, what a key has, slash charts, and what to improvise with.
 *
 * @example
 * scaleIn(C).right.join(''); // => "12312345"
 * scaleIn({ fifths: -1, mode: 'major' }).right.join(''); // => "12341234"
 * chordsIn(C).map((c) => c.symbol).join(' '); // => "C Dm Em F G Am Bdim"
 * inversionsOf({ root: 0, kind: 'major' }).map((v) => v.right.join('')); // => ["135", "125", "135"]
 * threeTones({ root: 1, kind: 'major' }, { fifths: 1, mode: 'major' }); // => [1, 3, 2]
 */
export {
  heldChords,
  isChordal,
  movesText,
  namesOf,
  strokesText,
  type Chorded,
  type HeldChord,
  type HeldKey,
} from './held';
export { fiveTones, rhythmsFor, threeTones } from './improvise';
export { chordsIn, inversionsOf, scaleIn, type FingeredInversion, type FingeredScale } from './reference';
export { slashChart, type SlashBeat, type SlashMeasure } from './slash';
