/**
 * Whether a sheet surely fits on one system. Then the engraver need not look for line breaks, for which it lays the music out once more
 * and which take half of its time. The estimate leans to the wide side: a sheet that might not fit is left to the engraver.
 */
import { TICKS_PER_QUARTER } from '$core/score/ticks';

/**
 * In CSS pixels at scale 1, fitted to the natural widths of 1,584 phrases (every demo and jury piece at every level) and rounded up;
 * the engraver gives a column of notes room by the power 0.6 of the time until the next (spacingNonLinear in engrave.ts).
 */
const CLEFS = 60;
const COLUMN = 34;
const COLUMN_POWER = 0.6;
const MEASURE = 17;
const ACCIDENTAL = 7;
const SIGNATURE = 5;
/** Widest usual character of a chord name and of a word below the notes, with the room between them. */
const CHORD_CHARACTER = 9;
const CHORD_GAP = 14;
const WORD_CHARACTER = 8;
const WORD_GAP = 10;

/** How much of the width may be taken before line breaks are looked for. */
const SURE = 0.92;

/** What an estimate reads of a sheet. */
interface Measured {
  readonly xml: string;
  readonly notes: Readonly<Record<string, { readonly onset: number }>>;
  readonly measures: readonly {
    readonly index: number;
    readonly number: string;
    readonly start: number;
    readonly end: number;
  }[];
}

const count = (text: string, what: RegExp): number => text.match(what)?.length ?? 0;

/** Letters of all texts that an expression finds, and how many texts they are. */
function lettersOf(text: string, what: RegExp): { readonly letters: number; readonly texts: number } {
  const found = [...text.matchAll(what)].map((match) => match[1]!.length);
  return { letters: found.reduce((sum, n) => sum + n, 0), texts: found.length };
}

/** Clefs and signature, which every line has again. */
export const clefsWidth = ({ xml }: Pick<Measured, 'xml'>): number =>
  CLEFS + SIGNATURE * Math.abs(Number(/<fifths>(-?\d+)/.exec(xml)?.[1] ?? 0));

/** Room that a sheet takes on one system without stretching, in CSS pixels at scale 1: rather too much than too little. */
export function widthNeeded(sheet: Measured): number {
  const { xml, notes, measures } = sheet;
  const columns = [
    ...new Set([...measures.map((m) => m.start), ...Object.values(notes).map((n) => n.onset)]),
    measures.at(-1)?.end ?? 0,
  ].sort((a, b) => a - b);
  const spaced = columns.reduce((sum, at, i) => {
    const length = i === 0 ? 0 : (at - columns[i - 1]!) / TICKS_PER_QUARTER;
    return sum + length ** COLUMN_POWER;
  }, 0);
  const music =
    clefsWidth(sheet) + COLUMN * spaced + MEASURE * measures.length + ACCIDENTAL * count(xml, /<accidental/g);
  const chords = lettersOf(xml, /<kind text="([^"]*)"/g);
  const basses = count(xml, /<bass>/g);
  const degrees = count(xml, /<degree>/g);
  const words = lettersOf(xml, /<text>([^<]*)<\/text>/g);
  return Math.max(
    music,
    CLEFS +
      CHORD_CHARACTER * (chords.letters + 2 * chords.texts + 3 * basses + 3 * degrees) +
      CHORD_GAP * chords.texts,
    CLEFS + WORD_CHARACTER * words.letters + WORD_GAP * words.texts,
  );
}

/** Whether the sheet needs no line break. */
export const fitsOnOneSystem = (sheet: Measured & { readonly width: number }): boolean =>
  widthNeeded(sheet) <= SURE * sheet.width;

/** One measure of a sheet by itself. */
function alone({ xml, notes, measures }: Measured, place: number): Measured {
  const { start, end } = measures[place]!;
  const texts = xml.split(/<measure\b/).slice(1);
  const head = /<fifths>-?\d+/.exec(xml)?.[0] ?? '';
  return {
    xml: `${head}${texts[place] ?? ''}`,
    measures: [measures[place]!],
    notes: Object.fromEntries(Object.entries(notes).filter(([, { onset }]) => onset >= start && onset < end)),
  };
}

/** The estimate leans to the wide side; a short line may be set as narrow as the engraver usually can. */
const TIGHT = 0.74;

/**
 * Lines of at most so many measures, for a narrow screen: where they begin (by index of the measure), and the width that the widest
 * needs, which is not less than the one that is wanted. A pickup is hardly a measure.
 */
export function shortLines(
  sheet: Measured & { readonly width: number },
  most: number,
): { readonly breaks: readonly number[]; readonly width: number } {
  const clefs = clefsWidth(sheet);
  const needs = sheet.measures.map((_, i) => TIGHT * (widthNeeded(alone(sheet, i)) - clefs));
  const breaks: number[] = [];
  let [held, taken, widest] = [0, clefs, 0];
  sheet.measures.forEach(({ index, number }, i) => {
    const isFull = held >= most || (held > 0 && taken + needs[i]! > sheet.width);
    if (isFull) {
      breaks.push(index);
      [held, taken] = [0, clefs];
    }
    held += number === '0' ? 0 : 1;
    taken += needs[i]!;
    widest = Math.max(widest, taken);
  });
  return { breaks, width: Math.round(Math.max(sheet.width, widest)) };
}
