/** `<harmony>` elements as chords. */
import { STEPS, type Step } from '../../../theory/pitch';
import type { ChordSymbol } from '../../../score/score';
import { chordTones, type Chord, type ChordAlteration } from '../../../theory/chord';
import { CHORD_KINDS, type ChordKindId } from '../../../theory/chordKinds';
import { parseChord } from '../../../theory/chordName';
import { toFifths, type Fifths } from '../../../theory/fifths';
import { child, childrenOf, numberOf, textOf, type XmlElement } from './xml';

const KIND_BY_NAME = new Map(
  Object.entries(CHORD_KINDS).map(([id, kind]) => [kind.musicxml as string, id as ChordKindId]),
);

/** Kinds of the format that we play as a simpler chord of the same function. */
const NEAREST_KIND: Readonly<Record<string, ChordKindId>> = {
  'major-11th': 'major9',
  Neapolitan: 'major',
  Italian: 'dominant7',
  French: 'dominant7',
  German: 'dominant7',
  Tristan: 'halfDiminished',
  pedal: 'major',
};

/** A chord, null for "no chord", undefined where the element names neither. */
export function readHarmony(element: XmlElement): ChordSymbol['chord'] | undefined {
  const kindElement = child(element, 'kind');
  const kind = kindElement?.text.trim() || 'major';
  if (kind === 'none') return null;
  const root = placeOf(child(element, 'root'), 'root');
  if (root === undefined) return undefined;
  const bass = placeOf(child(element, 'bass'), 'bass');
  const altered = childrenOf(element, 'degree').flatMap(readDegree);
  const chord: Chord = {
    root,
    kind: KIND_BY_NAME.get(kind) ?? NEAREST_KIND[kind] ?? kindInText(kindElement) ?? 'major',
    ...(altered.length > 0 ? { altered } : {}),
  };
  const below = bass ?? bassOfInversion(chord, numberOf(element, 'inversion'));
  return below === undefined || below === root ? chord : { ...chord, bass: below };
}

function placeOf(element: XmlElement | undefined, tag: 'root' | 'bass'): Fifths | undefined {
  const step = textOf(element, `${tag}-step`) as Step | undefined;
  if (!step || !STEPS.includes(step)) return undefined;
  return toFifths({ step, alter: Math.round(numberOf(element, `${tag}-alter`) ?? 0) });
}

/** Kinds called "other" often say in their text what they are. */
const kindInText = (kind: XmlElement | undefined): ChordKindId | undefined =>
  parseChord(`C${kind?.attributes.text ?? ''}`)?.kind;

function readDegree(element: XmlElement): ChordAlteration[] {
  const degree = numberOf(element, 'degree-value');
  const type = textOf(element, 'degree-type');
  if (degree === undefined || degree < 1 || degree > 13) return [];
  return [
    {
      type: type === 'subtract' ? 'leave out' : type === 'alter' ? 'alter' : 'add',
      degree,
      alter: Math.round(numberOf(element, 'degree-alter') ?? 0),
    },
  ];
}

/** The first inversion has the third in the bass, and so on. */
function bassOfInversion(chord: Chord, inversion: number | undefined): Fifths | undefined {
  return inversion ? chordTones(chord)[inversion] : undefined;
}
