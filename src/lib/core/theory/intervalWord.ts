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
