/**
 * How the words of counting are spoken: sounds of speech with their resonances (after the usual tables of vowel formants), and the
 * words by their sounds. Facts only; voice.ts makes sound of them.
 */

export interface Phoneme {
  /** Seconds at an easy pace. */
  readonly length: number;
  /** The first three resonances of the mouth, in hertz; of a glide from and to. */
  readonly from: readonly [number, number, number];
  readonly to?: readonly [number, number, number];
  /** How strongly the voice sounds in it, 0 to 1. */
  readonly voice: number;
  /** Hiss: how strong, and around which frequency. */
  readonly hiss?: readonly [strength: number, frequency: number];
  /** A stop: silence, then what stands above as a burst. */
  readonly closed?: number;
}

const vowel = (f1: number, f2: number, f3: number, length = 0.14): Phoneme => ({
  length,
  from: [f1, f2, f3],
  voice: 1,
});
const glide = (from: Phoneme['from'], to: Phoneme['from'], length = 0.2): Phoneme => ({
  length,
  from,
  to,
  voice: 1,
});
const stop = (f: Phoneme['from'], hiss: readonly [number, number], voice: number): Phoneme => ({
  length: 0.03,
  from: f,
  voice,
  hiss,
  closed: 0.035,
});

export const PHONEMES = {
  aa: vowel(730, 1090, 2440),
  ae: vowel(660, 1720, 2410),
  ah: vowel(640, 1190, 2390),
  eh: vowel(530, 1840, 2480, 0.12),
  ih: vowel(390, 1990, 2550, 0.1),
  iy: vowel(270, 2290, 3010),
  uw: vowel(300, 870, 2240),
  ao: vowel(570, 840, 2410),
  ey: glide([530, 1840, 2480], [300, 2200, 2900]),
  ay: glide([730, 1150, 2440], [300, 2200, 2900]),
  ow: glide([570, 900, 2410], [320, 800, 2240]),
  w: glide([300, 610, 2200], [400, 800, 2200], 0.06),
  r: glide([310, 1060, 1380], [420, 1200, 1600], 0.06),
  l: { length: 0.06, from: [360, 1200, 2700], voice: 0.7 },
  m: { length: 0.07, from: [250, 1000, 2200], voice: 0.45 },
  n: { length: 0.08, from: [250, 1700, 2600], voice: 0.5 },
  v: { length: 0.06, from: [300, 1200, 2300], voice: 0.5, hiss: [0.15, 5000] },
  f: { length: 0.09, from: [400, 1200, 2300], voice: 0, hiss: [0.25, 6000] },
  th: { length: 0.08, from: [320, 1290, 2540], voice: 0, hiss: [0.2, 5500] },
  s: { length: 0.1, from: [320, 1390, 2530], voice: 0, hiss: [0.6, 6200] },
  t: stop([320, 1800, 2600], [0.7, 4200], 0),
  d: stop([320, 1700, 2600], [0.35, 3800], 0.6),
  k: stop([320, 1900, 2400], [0.7, 2000], 0),
  p: stop([320, 900, 2200], [0.5, 1000], 0),
  b: stop([300, 900, 2200], [0.2, 800], 0.6),
  g: stop([300, 1800, 2300], [0.35, 1800], 0.6),
  h: { length: 0.06, from: [500, 1500, 2500], voice: 0, hiss: [0.25, 1500] },
} as const satisfies Record<string, Phoneme>;

export type PhonemeId = keyof typeof PHONEMES;

/** Words of the counting schools. */
export const WORDS: Readonly<Record<string, string>> = {
  '1': 'w ah n',
  '2': 't uw',
  '3': 'th r iy',
  '4': 'f ao r',
  '5': 'f ay v',
  '6': 's ih k s',
  '7': 's eh v n',
  '8': 'ey t',
  '9': 'n ay n',
  '10': 't eh n',
  '11': 'l eh v n',
  '12': 't w eh l v',
  '&': 'ae n',
  and: 'ae n',
  one: 'w ah n',
  two: 't uw',
  three: 'th r iy',
  four: 'f ao r',
  e: 'iy',
  a: 'ah',
  trip: 't r ih p',
  let: 'l eh t',
};

/** Letters of any other word, as they usually sound; the longer ones are looked for first. */
export const LETTERS: readonly (readonly [string, string])[] = [
  ['th', 'th'],
  ['sh', 's'],
  ['ch', 't s'],
  ['ee', 'iy'],
  ['ea', 'iy'],
  ['oo', 'uw'],
  ['ow', 'ow'],
  ['ay', 'ey'],
  ['ai', 'ey'],
  ['a', 'aa'],
  ['b', 'b'],
  ['c', 'k'],
  ['d', 'd'],
  ['e', 'eh'],
  ['f', 'f'],
  ['g', 'g'],
  ['h', 'h'],
  ['i', 'iy'],
  ['j', 'd'],
  ['k', 'k'],
  ['l', 'l'],
  ['m', 'm'],
  ['n', 'n'],
  ['o', 'ow'],
  ['p', 'p'],
  ['q', 'k'],
  ['r', 'r'],
  ['s', 's'],
  ['t', 't'],
  ['u', 'uw'],
  ['v', 'v'],
  ['w', 'w'],
  ['x', 'k s'],
  ['y', 'iy'],
  ['z', 's'],
];
