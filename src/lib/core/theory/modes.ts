/** The modes: a scale of the signature's seven notes that has its home on another of them. */
import type { Fifths } from './fifths';

export const MODES = ['major', 'minor', 'dorian', 'phrygian', 'lydian', 'mixolydian', 'locrian'] as const;
export type Mode = (typeof MODES)[number];

/** The degree of the major scale, from 0, on which each mode has its home. */
const HOME_DEGREE: Readonly<Record<Mode, number>> = {
  major: 0,
  dorian: 1,
  phrygian: 2,
  lydian: 3,
  mixolydian: 4,
  minor: 5,
  locrian: 6,
};

/** The major scale from its tonic up, on the line of fifths. */
const MAJOR_SCALE: readonly Fifths[] = [0, 2, 4, -1, 1, 3, 5];

/** Fifths from the tonic of the signature's major key to the home of the mode. */
export const homeOf = (mode: Mode): Fifths => MAJOR_SCALE[HOME_DEGREE[mode]]!;

/** The seven degrees of a mode from its home up, on the line of fifths from there. */
export const modeScale = (mode: Mode): Fifths[] => {
  const first = HOME_DEGREE[mode];
  return MAJOR_SCALE.map((_, i) => MAJOR_SCALE[(first + i) % 7]! - MAJOR_SCALE[first]!);
};

/** Whether the third above home is a minor one. */
export const hasMinorThird = (mode: Mode): boolean => modeScale(mode)[2] === -3;

/** How a mode follows its tonic in a short code: "Am", "Ddor". */
export const MODE_CODES: Readonly<Record<Mode, string>> = {
  major: '',
  minor: 'm',
  dorian: 'dor',
  phrygian: 'phr',
  lydian: 'lyd',
  mixolydian: 'mix',
  locrian: 'loc',
};

/** A mode by its name or the first three letters of it, as notation and text formats write it: "Dor", "aeolian", "min". */
export function modeNamed(text: string): Mode | undefined {
  const name = text.trim().toLowerCase();
  if (name === 'm' || /^(min|aeo)/.test(name)) return 'minor';
  if (name === '' || /^(maj|ion)/.test(name)) return 'major';
  return MODES.find((mode) => name.length >= 3 && mode.startsWith(name.slice(0, 3)));
}
