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
  // Root, fifth and octave or tenth: the hand opens from the second finger.
  '34': '125',
  '45': '125',
  '54': '125',
};

const FINGERS_OF: ReadonlyMap<string, readonly Finger[]> = new Map(
  Object.entries(SHAPES).map(([shape, digits]) => [shape, [...digits].map((d) => Number(d) as Finger)]),
);

/** The usual fingers of a chord whose keys lie at these distances outwards, in order; undefined for other chords. */
export function usualShape(outs: readonly number[]): readonly Finger[] | undefined {
  let shape = '';
  for (let i = 1; i < outs.length; i++) shape += lettersBetween(outs[i - 1]!, outs[i]!);
  return FINGERS_OF.get(shape);
}
