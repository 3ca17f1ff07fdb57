/**
 * How places inside a beat are called, school by school. A beat of a simple metre falls into two, three or four; a beat of
 * a compound metre into three pulses, each of which may fall into two. Facts only; count.ts walks them.
 */
export const SCHOOL_IDS = ['numbers', 'pulses', 'beat-pulse', 'ta-titi', 'takadimi'] as const;
export type SchoolId = (typeof SCHOOL_IDS)[number];

/** Places inside a beat by twelfths of it: halves are 6, quarters 3 and 9, thirds 4 and 8, sixths 2 and 10, fifths 2.4 and so on. */
export type Places = Readonly<Partial<Record<number, string>>>;

export interface School {
  readonly name: string;
  /** What a beat is called: by its number in the measure, or by one syllable. */
  readonly beat: 'number' | string;
  /** What a beat is called that is not divided, where it has a name of its own; notes of a beat or more too. */
  readonly whole?: string;
  readonly simple: Places;
  /** Where a simple beat falls into three. */
  readonly triplet: Places;
  /** Where a beat falls into five. */
  readonly quintuplet: Places;
  readonly compound: Places;
  /** Compound metres are counted pulse by pulse, held ones too: in one row, or anew with each beat. */
  readonly pulses?: 'through' | 'by beat';
}

const NUMBERS: Places = { 3: 'e', 6: '&', 9: 'a' };
/** Numbers have no words for fifths of a beat: the syllables of takadimi stand in. */
const IN_FIVE: Places = { 2.4: 'ka', 4.8: 'di', 7.2: 'mi', 9.6: 'ti' };

export const SCHOOLS: Readonly<Record<SchoolId, School>> = {
  numbers: {
    name: 'numbers: 1 & 2 &',
    beat: 'number',
    simple: NUMBERS,
    triplet: { 4: 'trip', 8: 'let', 2: '&', 6: '&', 10: '&' },
    quintuplet: IN_FIVE,
    compound: { 4: '&', 8: 'a', 2: 'e', 6: 'e', 10: 'e', 3: 'e', 9: 'a' },
  },
  pulses: {
    name: 'all eighths: 1 2 3 4 5 6',
    beat: 'number',
    simple: NUMBERS,
    triplet: { 4: 'trip', 8: 'let', 2: '&', 6: '&', 10: '&' },
    quintuplet: IN_FIVE,
    compound: { 2: '&', 6: '&', 10: '&', 3: '&', 9: '&' },
    pulses: 'through',
  },
  'beat-pulse': {
    name: 'beat, then eighths: 1 2 3 2 2 3',
    beat: 'number',
    simple: NUMBERS,
    triplet: { 4: '2', 8: '3', 2: '&', 6: '&', 10: '&' },
    quintuplet: { 2.4: '2', 4.8: '3', 7.2: '4', 9.6: '5' },
    compound: { 4: '2', 8: '3', 2: '&', 6: '&', 10: '&', 3: '&', 9: '&' },
    pulses: 'by beat',
  },
  'ta-titi': {
    name: 'ta, ti-ti',
    beat: 'ti',
    whole: 'ta',
    simple: { 3: 'ri', 6: 'ti', 9: 'ri' },
    triplet: { 0: 'tri', 4: 'o', 8: 'la', 2: 'ri', 6: 'ri', 10: 'ri' },
    quintuplet: { 2.4: 'ri', 4.8: 'ti', 7.2: 'ri', 9.6: 'ri' },
    compound: { 4: 'ti', 8: 'ti', 2: 'ri', 6: 'ri', 10: 'ri', 3: 'ri', 9: 'ri' },
  },
  takadimi: {
    name: 'ta, ka-di-mi',
    beat: 'ta',
    simple: { 3: 'ka', 6: 'di', 9: 'mi' },
    triplet: { 4: 'ki', 8: 'da', 2: 'va', 6: 'di', 10: 'ma' },
    quintuplet: IN_FIVE,
    compound: { 4: 'ki', 8: 'da', 2: 'va', 6: 'di', 10: 'ma', 3: 'ka', 9: 'mi' },
  },
};
