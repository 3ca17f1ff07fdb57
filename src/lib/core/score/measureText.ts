/** Measures in words, by the numbers that are printed. */

/** "measures 1 to 4", "measure 5" or "pickup to measure 4", from printed numbers. */
export function measuresText(numbers: readonly string[], from: number, to: number): string {
  if (from === to) return measureText(numbers[from] ?? '');
  if (numbers[from] === '0') return `pickup to measure ${numbers[to]}`;
  return `measures ${numbers[from]} to ${numbers[to]}`;
}

/** A measure numbered 0 is a pickup. */
export const measureText = (number: string): string => (number === '0' ? 'pickup' : `measure ${number}`);

/** The same from the numbers of the first and the last measure alone. */
export const measuresBetween = ([first, last]: readonly [first: string, last: string]): string =>
  measuresText([first, last], 0, first === last ? 0 : 1);
