/** What is sought by typing: which of the things offered are meant, the best first. */

/** Something that can be looked for. */
export interface Sought {
  /** The heading that it stands under, and its own name. */
  readonly group: string;
  readonly name: string;
  /** Other words for it, apart by spaces. */
  readonly words?: string | undefined;
}

/** What it says for a thing that a typed word begins its name, a word of its name or heading, or another word for it. */
const POINTS = { group: 5, name: 4, wordOfGroup: 3, wordOfName: 3, other: 1 } as const;

const wordsOf = (text: string): readonly string[] =>
  text
    .toLowerCase()
    .split(/[^\p{L}\p{N}♯♭]+/u)
    .filter(Boolean);

/** How well a thing meets one typed word: 0 where it does not. */
function meets({ group, name, words = '' }: Sought, typed: string): number {
  const begins = (word: string): boolean => word.startsWith(typed);
  return Math.max(
    group.toLowerCase().startsWith(typed) ? POINTS.group : 0,
    name.toLowerCase().startsWith(typed) ? POINTS.name : 0,
    wordsOf(group).some(begins) ? POINTS.wordOfGroup : 0,
    wordsOf(name).some(begins) ? POINTS.wordOfName : 0,
    wordsOf(words).some(begins) ? POINTS.other : 0,
  );
}

/** The things that meet every word of what is typed, the best first, equals in their order. All of them where nothing is typed. */
export function seek<Thing extends Sought>(things: readonly Thing[], typed: string): readonly Thing[] {
  const words = wordsOf(typed);
  if (words.length === 0) return things;
  return things
    .map((thing) => {
      const points = words.map((word) => meets(thing, word));
      return { thing, points: points.includes(0) ? 0 : points.reduce((a, b) => a + b, 0) };
    })
    .filter(({ points }) => points > 0)
    .sort((a, b) => b.points - a.points)
    .map(({ thing }) => thing);
}

/** Things under their headings, each in its order. */
export function underHeadings<Thing extends Sought>(
  things: readonly Thing[],
): readonly { readonly heading: string; readonly items: readonly Thing[] }[] {
  const groups = new Map<string, Thing[]>();
  for (const thing of things) {
    const group = groups.get(thing.group);
    if (group) group.push(thing);
    else groups.set(thing.group, [thing]);
  }
  return [...groups].map(([heading, items]) => ({ heading, items }));
}
