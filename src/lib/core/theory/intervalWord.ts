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
