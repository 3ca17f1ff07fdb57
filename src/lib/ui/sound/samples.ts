/** The recorded grand, as the application serves it: which keys were recorded, and under which names. Facts only. */

/** Six semitones apart, so that no key is moved by more than three: enough for the ear, and half of what would be loaded. */
export const RECORDED_KEYS = [
  'C1',
  'F#1',
  'C2',
  'F#2',
  'C3',
  'F#3',
  'C4',
  'F#4',
  'C5',
  'F#5',
  'C6',
  'F#6',
  'C7',
  'F#7',
  'C8',
] as const;

/** The name of a recording in an address, where a sharp has another meaning. */
export const sampleName = (key: string): string => `${key.replace('#', 's')}.mp3`;

/** Where they come from, as their licence asks. */
export const CREDIT = {
  what: 'Piano: Salamander Grand, recorded by Alexander Holm',
  licence: 'CC BY 3.0',
  url: 'https://creativecommons.org/licenses/by/3.0/',
} as const;
