/**
 * What the teacher has settled: kinds, where each holds, and what becomes of it.
 *
 * @example
 * subjectOf({ kind: 'finger', at: { note: 'm4n2' } }); // => "finger m4n2"
 * decide([], { kind: 'finger', at: { note: 'a' }, value: 2 }, { kind: 'finger', at: { note: 'a' }, value: 3 }).length; // => 1
 * decisionText({ kind: 'octave', at: { note: 'a' }, value: -1 }); // => "an octave lower"
 * sectionsHeld(['m0', 'm3'], { measures: song.measures, sections: [{ from: 0, to: 3 }] }); // => [0]
 */
export { WHOLE, type Anchor, type Scope } from './anchor';
export { byNote, decide, decisionAt, decisionsOf, giveBack, subjectOf } from './decide';
export { sectionAnchor, sectionDecision, sectionsHeld, valuesIn, type Layout } from './holds';
export { parkedIn, type Parked } from './parked';
export { placeText } from './placeText';
export { decisionSchema, decisionText, kindOf, KINDS, type Decision, type KindId } from './registry';
