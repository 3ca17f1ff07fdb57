/**
 * How scales are fingered, as every method book has them: for each tonic the fingers of its seven degrees inside a scale,
 * by hand. What happens at the ends of a scale is the same for all and lies in conventions.ts. Facts only.
 */
export const SCALE_STEPS = {
  major: [0, 2, 4, 5, 7, 9, 11],
  'harmonic minor': [0, 2, 3, 5, 7, 8, 11],
  'natural minor': [0, 2, 3, 5, 7, 8, 10],
  'melodic minor': [0, 2, 3, 5, 7, 9, 11],
} as const;

export type ScaleKind = keyof typeof SCALE_STEPS;

interface ScaleFingers {
  readonly right: string;
  readonly left: string;
}

const WHITE: ScaleFingers = { right: '1231234', left: '1432132' };
const B: ScaleFingers = { right: '1231234', left: '1321432' };
const F: ScaleFingers = { right: '1234123', left: '1432132' };

/** By pitch class of the tonic, from C. */
export const MAJOR_FINGERS: readonly ScaleFingers[] = [
  WHITE,
  { right: '2312341', left: '3214321' },
  WHITE,
  { right: '3123412', left: '3214321' },
  WHITE,
  F,
  { right: '2341231', left: '4321321' },
  WHITE,
  { right: '3412312', left: '3214321' },
  WHITE,
  { right: '4123123', left: '3214321' },
  B,
];

export const MINOR_FINGERS: readonly ScaleFingers[] = [
  WHITE,
  { right: '3412312', left: '3214321' },
  WHITE,
  { right: '3123412', left: '2143213' },
  WHITE,
  F,
  { right: '3412312', left: '4321321' },
  WHITE,
  { right: '3412312', left: '3214321' },
  WHITE,
  { right: '4123123', left: '2132143' },
  B,
];

/** The chromatic scale by pitch class: 3 on every black key, 1 on white ones, 2 where two white keys meet. */
export const CHROMATIC_FINGERS: ScaleFingers = { right: '231312313131', left: '131321313132' };
