/** The keys that a piece can be moved to, the ones that are easiest to read first. */
import { keyCode, keyName, type Key } from './key';

interface KeyOption {
  readonly code: string;
  readonly name: string;
  /** "2 sharps", "no sharps or flats" */
  readonly signature: string;
  readonly accidentals: number;
  readonly fifths: number;
}

/** "2 sharps", "1 flat", "no sharps or flats" */
export const signatureText = (fifths: number): string => {
  const count = Math.abs(fifths);
  if (count === 0) return 'no sharps or flats';
  const what = fifths > 0 ? 'sharp' : 'flat';
  return `${count} ${what}${count > 1 ? 's' : ''}`;
};

/** All keys of a mode with at most six accidentals, by their number. */
export function keyOptions(mode: Key['mode']): KeyOption[] {
  const fifths = [0, 1, -1, 2, -2, 3, -3, 4, -4, 5, -5, 6, -6];
  return fifths.map((f) => {
    const key: Key = { fifths: f, mode };
    return {
      code: keyCode(key),
      name: keyName(key),
      signature: signatureText(f),
      accidentals: Math.abs(f),
      fifths: f,
    };
  });
}
