/**
 * The degrees on which a tune is harmonised, mode by mode, with what each costs before a note is heard: first I, IV and V, then
 * ii and vi; what stands outside the key only where the tune itself has the altered note. Roots lie on the line of fifths from
 * home.
 */
import type { Fifths } from '../../theory/fifths';
import type { Mode } from '../../theory/modes';

export interface Degree {
  /** As in "V": upper case, whatever its third. */
  readonly name: string;
  readonly root: Fifths;
  /** `dominant`: with its seventh where it leads on. */
  readonly kind: 'major' | 'minor' | 'diminished' | 'dominant';
  readonly cost: number;
  /** Semitones above home that the tune must have there, and must not have. */
  readonly needs?: number;
  readonly bars?: number;
  /** The degree to which a secondary dominant leads. */
  readonly leadsTo?: string;
}

const MAJOR: readonly Degree[] = [
  { name: 'I', root: 0, kind: 'major', cost: 0 },
  { name: 'V', root: 1, kind: 'dominant', cost: 0.1 },
  { name: 'IV', root: -1, kind: 'major', cost: 0.15, bars: 6 },
  { name: 'II', root: 2, kind: 'minor', cost: 0.4, bars: 6 },
  { name: 'VI', root: 3, kind: 'minor', cost: 0.5, bars: 8 },
  { name: 'III', root: 4, kind: 'minor', cost: 1.1 },
  { name: 'V/V', root: 2, kind: 'dominant', cost: 0.4, needs: 6, leadsTo: 'V' },
  { name: 'V/II', root: 3, kind: 'dominant', cost: 0.5, needs: 1, leadsTo: 'II' },
  { name: 'V/VI', root: 4, kind: 'dominant', cost: 0.5, needs: 8, leadsTo: 'VI' },
  { name: 'V/IV', root: 0, kind: 'dominant', cost: 0.5, needs: 10, leadsTo: 'IV' },
  { name: 'iv', root: -1, kind: 'minor', cost: 0.6, needs: 8 },
  { name: 'VII', root: -2, kind: 'major', cost: 0.6, needs: 10 },
];

const MINOR: readonly Degree[] = [
  { name: 'I', root: 0, kind: 'minor', cost: 0 },
  { name: 'V', root: 1, kind: 'dominant', cost: 0.1, bars: 10 },
  { name: 'IV', root: -1, kind: 'minor', cost: 0.2, bars: 9 },
  { name: 'VI', root: -4, kind: 'major', cost: 0.45, bars: 9 },
  { name: 'III', root: -3, kind: 'major', cost: 0.5, bars: 11 },
  { name: 'VII', root: -2, kind: 'dominant', cost: 0.5, bars: 11, leadsTo: 'III' },
  { name: 'II', root: 2, kind: 'diminished', cost: 0.9, bars: 9 },
  { name: 'v', root: 1, kind: 'minor', cost: 0.9, needs: 10 },
  { name: 'IV+', root: -1, kind: 'major', cost: 0.6, needs: 9 },
  { name: 'V/V', root: 2, kind: 'dominant', cost: 0.5, needs: 6, leadsTo: 'V' },
  { name: 'V/IV', root: 0, kind: 'dominant', cost: 0.5, needs: 4, leadsTo: 'IV' },
];

/** Modes close by their own neighbours of home: no leading note is raised that the tune does not raise. */
const DORIAN: readonly Degree[] = [
  { name: 'I', root: 0, kind: 'minor', cost: 0 },
  { name: 'VII', root: -2, kind: 'major', cost: 0.1 },
  { name: 'V', root: 1, kind: 'minor', cost: 0.3 },
  { name: 'IV', root: -1, kind: 'major', cost: 0.25 },
  { name: 'III', root: -3, kind: 'major', cost: 0.45 },
  { name: 'II', root: 2, kind: 'minor', cost: 0.9 },
  { name: 'V', root: 1, kind: 'dominant', cost: 0.2, needs: 11 },
];

const MIXOLYDIAN: readonly Degree[] = [
  { name: 'I', root: 0, kind: 'major', cost: 0 },
  { name: 'VII', root: -2, kind: 'major', cost: 0.1 },
  { name: 'IV', root: -1, kind: 'major', cost: 0.2 },
  { name: 'V', root: 1, kind: 'minor', cost: 0.35 },
  { name: 'II', root: 2, kind: 'minor', cost: 0.5 },
  { name: 'VI', root: 3, kind: 'minor', cost: 0.6 },
  { name: 'V', root: 1, kind: 'dominant', cost: 0.2, needs: 11 },
];

const PHRYGIAN: readonly Degree[] = [
  { name: 'I', root: 0, kind: 'minor', cost: 0 },
  { name: 'II', root: -5, kind: 'major', cost: 0.1 },
  { name: 'VII', root: -2, kind: 'minor', cost: 0.25 },
  { name: 'IV', root: -1, kind: 'minor', cost: 0.3 },
  { name: 'VI', root: -4, kind: 'major', cost: 0.35 },
  { name: 'III', root: -3, kind: 'major', cost: 0.45 },
];

const LYDIAN: readonly Degree[] = [
  { name: 'I', root: 0, kind: 'major', cost: 0 },
  { name: 'II', root: 2, kind: 'major', cost: 0.1 },
  { name: 'V', root: 1, kind: 'major', cost: 0.15 },
  { name: 'VI', root: 3, kind: 'minor', cost: 0.45 },
  { name: 'III', root: 4, kind: 'minor', cost: 0.7 },
  { name: 'VII', root: 5, kind: 'minor', cost: 0.8 },
];

/** Home itself is diminished: it is left as soon as it may be. */
const LOCRIAN: readonly Degree[] = [
  { name: 'I', root: 0, kind: 'diminished', cost: 0.1 },
  { name: 'II', root: -5, kind: 'major', cost: 0.1 },
  { name: 'VII', root: -2, kind: 'minor', cost: 0.2 },
  { name: 'III', root: -3, kind: 'minor', cost: 0.3 },
  { name: 'VI', root: -4, kind: 'major', cost: 0.35 },
  { name: 'IV', root: -1, kind: 'minor', cost: 0.4 },
];

export const DEGREES: Readonly<Record<Mode, readonly Degree[]>> = {
  major: MAJOR,
  minor: MINOR,
  dorian: DORIAN,
  mixolydian: MIXOLYDIAN,
  phrygian: PHRYGIAN,
  lydian: LYDIAN,
  locrian: LOCRIAN,
};

/** What a step from one degree to the next costs or saves; anything else costs a little. */
const STEPS: Readonly<Record<string, number>> = {
  'V I': -0.3,
  'IV V': -0.05,
  'II V': -0.2,
  'IV I': 0,
  'I IV': 0,
  'I V': 0,
  'I VI': 0.05,
  'VI II': 0,
  'VI IV': 0,
  'V VI': 0.2,
  'V IV': 0.6,
  'V II': 0.6,
  'II I': 0.5,
  'II IV': 0.3,
  'VII I': -0.1,
  'VII III': -0.2,
  'II VI': 0.3,
};
const OTHER_STEP = 0.15;
const RESOLVES = -0.4;

export const follows = (a: Degree, b: Degree): number =>
  a.leadsTo !== undefined && a.leadsTo === b.name ? RESOLVES : (STEPS[`${a.name} ${b.name}`] ?? OTHER_STEP);
