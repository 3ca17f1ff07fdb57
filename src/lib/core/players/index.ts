/**
 * Who plays what in a source: the tune, the hands, a band that shares the tune out, two players at one piano.
 *
 * @example
 * proposedParts(song).parts; // => {"P1":"piano"}
 * findTune(song).map(({ from, to, part }) => [from, to, part]); // => [[0,3,"P1"]]
 */
export { choicesFor, proposedParts, withParts, type PartChoice, type PartChoices } from './parts';
export { findTune, type TunePhrase } from './tune';
