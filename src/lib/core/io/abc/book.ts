/** A tune book: a text of several tunes in ABC, each from its line X: to the next; what stands before the first holds for all. */

export interface BookTune {
  /** As in "X:12". */
  readonly number: string;
  readonly title: string;
  /** The tune as a text of its own, with the head of the book. */
  readonly text: string;
}

/** The tunes of a text, in its order; a text without a line X: has none. */
export function tunesIn(text: string): BookTune[] {
  const lines = text.split(/\r\n|\r|\n/);
  const starts = lines.flatMap((line, i) => (/^X:/.test(line) ? [i] : []));
  const head = lines.slice(0, starts[0] ?? 0).filter(holdsForAll);
  return starts.map((start, i): BookTune => {
    const [first = '', ...own] = lines.slice(start, starts[i + 1]);
    const number = withoutComment(first.slice(2)) || String(i + 1);
    const title = withoutComment(own.find((line) => /^T:/.test(line))?.slice(2) ?? '');
    return {
      number,
      title: title || `Tune ${number}`,
      text: [first, ...head, ...withoutFreeText(own)].join('\n'),
    };
  });
}

const withoutComment = (text: string): string => text.replace(/%.*/, '').trim();

/**
 * Of what stands before the first tune, directives hold for all, and the fields that a book may have (ABC 2.1, 3: no title, tempo or
 * key); everything else is free text.
 */
const holdsForAll = (line: string): boolean => /^(%%|[ABCDFGHILMmNORrSUZ]:)/.test(line);

const isField = (line: string): boolean => /^(%%|[A-Za-z]:)/.test(line);

/**
 * A blank line ends a tune, and free text may follow. Who types music leaves blank lines between its phrases all the same: what has
 * bar lines, and fields, still belongs to the tune.
 */
function withoutFreeText(lines: readonly string[]): string[] {
  const end = lines.findIndex((line) => line.trim() === '');
  if (end < 0) return [...lines];
  return [...lines.slice(0, end), ...lines.slice(end).filter((line) => /\|/.test(line) || isField(line))];
}
