/** How chords lie under one hand: the usual fingers by the distances between their keys, the same for both hands. */
import type { Finger } from './grips';

/** Letters from one key to another by semitones, as chords are spelled most often. */
const LETTERS = [0, 1, 1, 2, 2, 3, 3, 4, 5, 5, 6, 6, 7];

/** Letters between two keys; an octave and more count as an octave. */
export const lettersBetween = (a: number, b: number): number => LETTERS[Math.abs(b - a)] ?? 7;

/** By the letters between neighbouring keys, outwards from the thumb: a triad in root position is 22. */
const SHAPES: Readonly<Record<string, string>> = {
  '22': '135',
  '23': '125',
  '32': '135',
  '13': '125',
  '31': '145',
  '222': '1235',
  '221': '1245',
  '212': '1235',
  '122': '1235',
  '223': '1235',
  '232': '1245',
  '322': '1235',
  // Sevenths without their fifth or third, and what has two of its keys close together.
  '24': '125',
  '42': '135',
  '33': '125',
  '25': '125',
  '52': '145',
  '43': '135',
  '41': '145',
  '14': '125',
  '51': '145',
  '15': '125',
  // Root, fifth and octave or tenth: the hand opens from the second finger.
  '34': '125',
  '45': '125',
  '234': '1235',
  '54': '125',
  // Root, seventh and tenth; root, fifth and ninth.
  '36': '125',
  '26': '125',
  '44': '125',
};

/** Shapes with a second in them, which are chords only when they are struck together: one after another they are a tune. */
const STRUCK_SHAPES: Readonly<Record<string, string>> = { '21': '134', '12': '124', '11': '123' };

const fingersOf = (shapes: Readonly<Record<string, string>>): [string, readonly Finger[]][] =>
  Object.entries(shapes).map(([shape, digits]) => [shape, [...digits].map((d) => Number(d) as Finger)]);

const FINGERS_OF = new Map(fingersOf(SHAPES));
const FINGERS_STRUCK = new Map(fingersOf({ ...SHAPES, ...STRUCK_SHAPES }));

const shapeText = (outs: readonly number[]): string => {
  let shape = '';
  for (let i = 1; i < outs.length; i++) shape += lettersBetween(outs[i - 1]!, outs[i]!);
  return shape;
};

/** An octave, and the widest step beyond its thumb that the second finger takes over it: a fourth. */
const [OCTAVE, WIDEST_OVER, NARROWEST_OVER] = [12, 5, 3];

/**
 * An octave with a note inside it and one beyond its thumb, one key after another (C G C E upwards in the left hand): the hand
 * turns about the thumb, the second finger inside and over it, 5 2 1 2.
 */
export function turningShape(outs: readonly number[]): readonly Finger[] | undefined {
  if (outs.length !== 4) return undefined;
  const [over, thumb, , octave] = outs as [number, number, number, number];
  const step = thumb - over;
  return octave - thumb === OCTAVE && step >= NARROWEST_OVER && step <= WIDEST_OVER
    ? [2, 1, 2, 5]
    : undefined;
}

/** The usual fingers of a broken chord whose keys lie at these distances outwards, in order; undefined for other chords. */
export const brokenShape = (outs: readonly number[]): readonly Finger[] | undefined =>
  turningShape(outs) ?? FINGERS_OF.get(shapeText(outs));

/** The usual fingers of keys that are struck together. */
export const struckShape = (outs: readonly number[]): readonly Finger[] | undefined =>
  FINGERS_STRUCK.get(shapeText(outs));
