/** Links into the music of a piece: the measure, by index, stands in the address. */
export const measureLink = (measure: number): string => `#m${measure}`;

/** The measure that an address names; undefined where it names none. */
export function measureOf(hash: string): number | undefined {
  const match = /^#m(\d{1,6})$/.exec(hash);
  return match ? Number(match[1]) : undefined;
}
