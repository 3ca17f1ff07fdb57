/** What a key has: its scale with the fingers of both hands, and its chords in all their inversions with theirs. */
import { struckShape } from '../fingering/shapes';
import { MAJOR_FINGERS, MINOR_FINGERS } from '../fingering/scaleFingers';
import { pitchClassName, toMidi, type Pitch } from '../theory/pitch';
import { chordSymbol, chordTones, degree, type Chord } from '../theory/chord';
import { fromFifths, nearestPitch, pitchClass, type Fifths } from '../theory/fifths';
import { signatureNames, scaleFifths, tonicFifths, type Key } from '../theory/key';
import { hasMinorThird } from '../theory/modes';

interface FingeredScale {
  /** Of one octave, the tonic at both ends. */
  readonly names: readonly string[];
  readonly right: readonly number[];
  readonly left: readonly number[];
  /** "F♯, C♯" as the signature has them. */
  readonly signature: readonly string[];
}

/** One octave of the scale on a key's tonic. A minor key's is harmonic: its seventh is raised. */
export function scaleIn(key: Key): FingeredScale {
  const tonic = pitchClass(tonicFifths(key));
  const fingers = (hasMinorThird(key.mode) ? MINOR_FINGERS : MAJOR_FINGERS)[tonic]!;
  const [right, left] = [[...fingers.right].map(Number), [...fingers.left].map(Number)];
  const names = scaleOf(key).map((f) => pitchClassName(fromFifths(f)));
  return {
    names: [...names, names[0]!],
    // Where the thumb would only open another octave, the hand goes on to its next finger.
    right: [...right, right[0] === 1 ? right[6]! + 1 : right[0]!],
    left: [left[0] === 1 ? left[1]! + 1 : left[0]!, ...left.slice(1), left[0]!],
    signature: signatureNames(key),
  };
}

/** Degrees of the scale from the tonic up; of a minor key with the raised seventh. */
const RAISED = 7;
function scaleOf(key: Key): Fifths[] {
  const tones = scaleFifths(key);
  return key.mode === 'minor' ? tones.map((t, i) => (i === 6 ? t + RAISED : t)) : tones;
}

/** One chord in one inversion, with its keys from the lowest up and the fingers of either hand. */
export interface FingeredInversion {
  /** 0 where the root lies lowest. */
  readonly inversion: number;
  readonly pitches: readonly Pitch[];
  readonly right: readonly number[];
  readonly left: readonly number[];
}

interface ReferenceChord {
  readonly chord: Chord;
  readonly symbol: string;
  readonly degree: string;
  readonly names: string;
  readonly inversions: readonly FingeredInversion[];
}

/** Around middle C. */
const HOME = 60;

/** A chord in every inversion, the lowest key near middle C. */
export function inversionsOf(chord: Chord): FingeredInversion[] {
  const tones = chordTones({ ...chord, bass: undefined } as Chord).slice(0, 4);
  return tones.map((_, inversion) => {
    const order = [...tones.slice(inversion), ...tones.slice(0, inversion)];
    const pitches: Pitch[] = [];
    for (const tone of order) {
      const low = pitches.at(-1);
      pitches.push(low ? above(tone, toMidi(low)) : nearestPitch(tone, HOME));
    }
    const keys = pitches.map(toMidi);
    const outwards = (from: readonly number[]): readonly number[] =>
      struckShape(from.map((k) => Math.abs(k - from[0]!))) ?? from.map((_k, i) => i + 1);
    return {
      inversion,
      pitches,
      right: outwards(keys),
      left: [...outwards([...keys].reverse())].reverse(),
    };
  });
}

function above(tone: Fifths, midi: number): Pitch {
  const near = nearestPitch(tone, midi + 6);
  return toMidi(near) > midi ? near : { ...near, octave: near.octave + 1 };
}

/** The chord on each degree of a key, thirds above each other; of a minor key with the raised seventh where it leads. */
export function chordsIn(key: Key): ReferenceChord[] {
  const natural = scaleFifths(key);
  const leading = scaleOf(key);
  return natural.map((_, i) => {
    // The fifth and seventh degrees lead to the tonic, also in minor.
    const tones = i === 4 || i === 6 ? leading : natural;
    const [root, third, fifth] = [0, 2, 4].map((up) => tones[(i + up) % 7]!) as [Fifths, Fifths, Fifths];
    const kind = triadOf(third - root, fifth - root);
    const chord = { root, kind } as Chord;
    return {
      chord,
      symbol: chordSymbol(chord),
      degree: degree(chord, key),
      names: [root, third, fifth].map((t) => pitchClassName(fromFifths(t))).join(' '),
      inversions: inversionsOf(chord),
    };
  });
}

/** By the fifths from the root to its third and fifth. */
function triadOf(third: number, fifth: number): string {
  const isMajor = third === 4;
  if (fifth === 1) return isMajor ? 'major' : 'minor';
  return isMajor ? 'augmented' : 'diminished';
}
