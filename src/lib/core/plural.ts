/** What follows a noun and turns with it: "1 measure repeats", "3 measures repeat". */
interface Clause {
  readonly one: string;
  readonly many: string;
}

const WORDS = [
  'no',
  'one',
  'two',
  'three',
  'four',
  'five',
  'six',
  'seven',
  'eight',
  'nine',
  'ten',
  'eleven',
  'twelve',
];

/** A small count in a sentence about notes: "seven"; digits above twelve. */
export const countWord = (count: number): string => WORDS[count] ?? String(count);

/** "1 note", "3 notes"; with a clause "1 note is on hold", "3 notes are on hold". */
export function plural(count: number, one: string, manyOrClause?: string | Clause, clause?: Clause): string {
  const [many, follows] =
    typeof manyOrClause === 'object' ? [`${one}s`, manyOrClause] : [manyOrClause ?? `${one}s`, clause];
  const said = `${count} ${count === 1 ? one : many}`;
  return follows ? `${said} ${count === 1 ? follows.one : follows.many}` : said;
}
