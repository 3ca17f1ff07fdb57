import { nameOfNote } from './noteNames';
import type { Step } from './pitch';
import { fromFifths, pitchClass, toFifths, type Fifths } from './fifths';
import { homeOf, MODE_CODES, modeNamed, modeScale, type Mode } from './modes';

/** A key: sharps (positive) or flats (negative) in its signature, and its mode. */
export interface Key {
  readonly fifths: number;
  readonly mode: Mode;
}

/** Signatures go round to at most six accidentals. */
export const MOST_ACCIDENTALS = 6;

/** Place of the tonic on the line of fifths: a minor tonic lies three fifths above its signature. */
export const tonicFifths = (key: Key): Fifths => key.fifths + homeOf(key.mode);

/** The key of a mode that has its home on a tonic. */
const keyOn = (tonic: Fifths, mode: Mode): Key => ({ fifths: tonic - homeOf(mode), mode });

/** "G major", "F♯ minor", "D dorian" */
export const keyName = (key: Key): string => `${tonicName(key)} ${key.mode}`;

/** "G", "F♯" */
export function tonicName(key: Key): string {
  const { step, alter } = fromFifths(tonicFifths(key));
  return nameOfNote(step, alter);
}

/** The short form used on the command line and in recipes: "G", "F#m", "Bb", "Ddor". */
export function keyCode(key: Key): string {
  const { step, alter } = fromFifths(tonicFifths(key));
  return step + (alter > 0 ? '#' : 'b').repeat(Math.abs(alter)) + MODE_CODES[key.mode];
}

/** Reads "C", "F#m", "Bb", "E♭ minor", "D dorian"; undefined when it names no key of at most seven accidentals. */
export function parseKey(text: string): Key | undefined {
  const match = /^([A-Ga-g])(#{1,2}|b{1,2}|♯|♭)?\s*([A-Za-z]*)$/.exec(text.trim());
  if (!match) return undefined;
  const accidental = match[2] ?? '';
  const alter = (/[#♯]/.test(accidental) ? 1 : -1) * accidental.length;
  const mode = match[3] === 'M' ? 'major' : modeNamed(match[3]!);
  if (!mode) return undefined;
  const step = match[1]!.toUpperCase() as 'C';
  const key = keyOn(toFifths({ step, alter }), mode);
  return Math.abs(key.fifths) <= 7 ? key : undefined;
}

/**
 * The key that is meant where a key is named for music of a mode: "Dm" for a Dorian tune is D Dorian. Of major and minor the
 * signature is meant, as a teacher says "in one sharp".
 */
export function inMode(named: Key, mode: Mode): Key {
  const isPlain = (m: Mode): boolean => m === 'major' || m === 'minor';
  if (isPlain(named.mode) && isPlain(mode)) return { fifths: named.fifths, mode };
  const { fifths } = keyOn(tonicFifths(named), mode);
  return { fifths: withinSix(fifths), mode };
}

/** Brings a signature of more than six accidentals round to its enharmonic twin. */
export const withinSix = (fifths: number): number =>
  fifths > MOST_ACCIDENTALS ? fifths - 12 : fifths < -MOST_ACCIDENTALS ? fifths + 12 : fifths;

/** The seven degrees of the key's scale (natural minor) on the line of fifths, from the tonic up. */
export const scaleFifths = (key: Key): Fifths[] =>
  modeScale(key.mode).map((offset) => tonicFifths(key) + offset);

/** The accidental that a letter has in the key's scale. */
export const alterInKey = (step: Step, key: Key): number =>
  scaleFifths(key)
    .map(fromFifths)
    .find((p) => p.step === step)!.alter;

/** The accidentals of a signature in the order they are written: "F♯, C♯". */
export function signatureNames(key: Key): string[] {
  const order: Fifths[] = key.fifths > 0 ? [6, 7, 8, 9, 10, 11, 12] : [-2, -3, -4, -5, -6, -7, -8];
  return order.slice(0, Math.abs(key.fifths)).map((f) => {
    const { step, alter } = fromFifths(f);
    return nameOfNote(step, alter);
  });
}

/**
 * The usual spelling of a pitch class in a key: as near as possible to the middle of the key's scale on the line of
 * fifths, with the raised sixth and seventh of minor preferred to their flat twins.
 * One pitch class lies equally far on both sides (G♯ or A♭ in C): a chord's root is the flat one, a note of a melody the sharp
 * one, leading upwards; `tie` says which.
 */
export function spellInKey(pc: number, key: Key, tie: 'flat' | 'sharp' = 'flat'): Fifths {
  const centre = key.fifths + (key.mode === 'minor' ? 4 : 2);
  let best = 0;
  let distance = Infinity;
  for (let fifths = centre - 6; fifths <= centre + 6; fifths++) {
    const nearer = Math.abs(fifths - centre) - distance;
    if (pitchClass(fifths) === pc && (nearer < 0 || (nearer === 0 && tie === 'sharp'))) {
      best = fifths;
      distance = Math.abs(fifths - centre);
    }
  }
  return best;
}
