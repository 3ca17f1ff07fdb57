/** Musical time in whole ticks, so that triplets, septuplets and dotted values add up exactly. */
export type Ticks = number;

/** 10080 = 2⁵·3²·5·7 ticks to the quarter note: every usual tuplet down to sixty-fourths is a whole number. */
export const TICKS_PER_QUARTER = 10080;

/** Ticks of a note value given as a fraction of a whole note, e.g. `noteValue(8)` for an eighth. */
export const noteValue = (denominator: number): Ticks => (TICKS_PER_QUARTER * 4) / denominator;

/** Ticks as a reduced fraction of quarter notes: "0", "1", "3/2". */
export function quarters(ticks: Ticks): string {
  const gcd = (a: number, b: number): number => (b === 0 ? a : gcd(b, a % b));
  const divisor = gcd(Math.abs(ticks), TICKS_PER_QUARTER) || 1;
  const [top, bottom] = [ticks / divisor, TICKS_PER_QUARTER / divisor];
  return bottom === 1 ? `${top}` : `${top}/${bottom}`;
}
