const WORDS = [
  'unison',
  'second',
  'third',
  'fourth',
  'fifth',
  'sixth',
  'seventh',
  'octave',
  'ninth',
  'tenth',
  'eleventh',
  'twelfth',
  'thirteenth',
  'fourteenth',
];

/** The name of an interval by the staff positions between its notes: 7 is an octave; from 14 on it is two octaves or more. */
export const intervalWord = (steps: number): string =>
  WORDS[steps] ??
  (steps < 21 ? (steps === 14 ? 'double octave' : 'leap over two octaves') : 'leap over three octaves');

/** The names of distances by half steps, below an octave. */
const DISTANCES = [
  'nothing',
  'a half step',
  'a whole step',
  'a minor third',
  'a major third',
  'a fourth',
  'a tritone',
  'a fifth',
  'a minor sixth',
  'a major sixth',
  'a minor seventh',
  'a major seventh',
];

/** How far two notes are apart, as a teacher says it, by half steps, up or down. */
export function distanceText(halfSteps: number): string {
  const octaves = Math.floor(Math.abs(halfSteps) / 12);
  const rest = Math.abs(halfSteps) % 12;
  if (octaves === 0) return DISTANCES[rest]!;
  const whole = octaves === 1 ? 'an octave' : `${octaves} octaves`;
  return rest === 0 ? whole : `${whole} and ${DISTANCES[rest]!}`;
}

/** Staff positions that a distance in half steps usually has within an octave: 6, the tritone, is written as a fourth. */
const USUAL_STEPS = [0, 1, 1, 2, 2, 3, 3, 4, 5, 5, 6, 6] as const;

/** The interval of a leap or a span as it is usually written, with its article: 15 half steps are "a tenth". */
export function intervalOf(halfSteps: number): string {
  const distance = Math.abs(halfSteps);
  if (distance === 6) return 'a tritone';
  const word = intervalWord(7 * Math.floor(distance / 12) + USUAL_STEPS[distance % 12]!);
  return `${/^(eighth|eleventh|octave)/.test(word) ? 'an' : 'a'} ${word}`;
}
