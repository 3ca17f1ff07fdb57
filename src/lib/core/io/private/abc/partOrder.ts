/** The order in which the parts of a tune are played, as a field P: in its head says it: "AB", "A2B", "(AB)3C". */

/** Longer orders are taken for a mistake. */
const MOST_PARTS = 200;

/** The letters of an order, one after the other; undefined where it is none, or beyond measure. */
export function partsInOrder(order: string): string[] | undefined {
  const signs = [...order.replace(/[\s.]/g, '')];
  let at = 0;
  const times = (): number => {
    let digits = '';
    while (/\d/.test(signs[at] ?? '')) digits += signs[at++];
    return digits === '' ? 1 : Number(digits);
  };
  const sequence = (): string[] | undefined => {
    const letters: string[] = [];
    while (at < signs.length && signs[at] !== ')') {
      const sign = signs[at++]!;
      let own: string[] | undefined = [sign];
      if (sign === '(') {
        own = sequence();
        if (signs[at++] !== ')') return undefined;
      } else if (!/[A-Za-z]/.test(sign)) return undefined;
      const count = times();
      if (!own || own.length * count + letters.length > MOST_PARTS) return undefined;
      for (let i = 0; i < count; i++) letters.push(...own);
    }
    return letters;
  };
  const letters = sequence();
  return letters && at === signs.length && letters.length > 0 ? letters : undefined;
}

interface InParts {
  readonly section?: string;
  readonly frame: { readonly repeatStart?: boolean; readonly repeatEnd?: boolean };
}

/**
 * Measures written out in the order of their parts; what stands before the first part comes first, once. `names` are the parts by
 * measure index, of whichever voice names them. Undefined where the order names a part that is not there, or is the order of the page.
 */
export function inOrder<T extends InParts>(
  measures: readonly T[],
  names: ReadonlyMap<number, string>,
  letters: readonly string[],
): T[] | undefined {
  const starts = [...names.keys()].sort((a, b) => a - b);
  const ranges = new Map(
    starts.map((start, i) => [names.get(start)!, measures.slice(start, starts[i + 1] ?? measures.length)]),
  );
  if (letters.some((letter) => !ranges.has(letter))) return undefined;
  if (letters.join(' ') === starts.map((start) => names.get(start)).join(' ')) return undefined;
  return [
    ...measures.slice(0, starts[0]),
    ...letters.flatMap((letter) => repeatedInside(ranges.get(letter)!)),
  ];
}

/** A repeat that begins with the part says so: before it stands another part now. */
function repeatedInside<T extends InParts>(part: readonly T[]): T[] {
  const end = part.findIndex((m) => m.frame.repeatEnd);
  const start = part.findIndex((m) => m.frame.repeatStart);
  const isOpen = end >= 0 && (start < 0 || start > end);
  return part.map((m, i) => (isOpen && i === 0 ? { ...m, frame: { ...m.frame, repeatStart: true } } : m));
}
