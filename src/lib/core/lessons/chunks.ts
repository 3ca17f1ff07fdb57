/** From a form to the chunks that are learned: two to four measures at the boundaries of phrases; what comes again is learned once. */
import type { Form } from '../analysis/form';

/** What chunks need of a form. */
export type ChunkForm = Pick<Form, 'phrases' | 'firstSeen'> & {
  readonly sections: readonly Pick<Form['sections'][number], 'label' | 'from' | 'to'>[];
};

/** Measures from one to another, by their places in a version. */
export interface Places {
  readonly from: number;
  readonly to: number;
}

/** The name of the measures from one to another, by their ids. */
export const chunkId = (from: string, to: string): string => `${from}..${to}`;

/** The shortest chunk, and the longest but for a pickup in front of it. */
const SHORTEST = 2;
const LONGEST = 4;

/** The chunks of a form, front to back. A phrase that is new only in part gives the part, with a measure beside it to lead into it. */
export function chunksOf({ phrases, firstSeen }: ChunkForm): Places[] {
  const isNew = (i: number): boolean => firstSeen[i] === i;
  const parts = phrases.flatMap((phrase): Places[] => {
    const own = Array.from({ length: phrase.to - phrase.from + 1 }, (_, i) => phrase.from + i).filter(isNew);
    if (own.length === 0) return [];
    const [from, to] = [own[0]!, own.at(-1)!];
    if (to - from + 1 >= SHORTEST) return [{ from, to }];
    return [from > phrase.from ? { from: from - 1, to } : { from, to: Math.min(phrase.to, to + 1) }];
  });
  const isAlone = ({ from, to }: Places): boolean => to - from + 1 < SHORTEST;
  // A phrase of a single measure is no chunk: it goes with its neighbour where that leaves room, else with a measure beside it.
  const joined = parts.reduce<Places[]>((chunks, part) => {
    const before = chunks.at(-1);
    const fits = before && before.to + 1 === part.from && part.to - before.from < LONGEST;
    return fits && (isAlone(part) || isAlone(before))
      ? [...chunks.slice(0, -1), { from: before.from, to: part.to }]
      : [...chunks, part];
  }, []);
  const last = firstSeen.length - 1;
  return joined.map((chunk) => {
    if (!isAlone(chunk)) return chunk;
    const { from, to } = chunk;
    return from > 0 ? { from: from - 1, to } : { from, to: Math.min(last, to + 1) };
  });
}

/** The label of the section in which a measure stands. */
export const sectionAt = ({ sections }: Pick<ChunkForm, 'sections'>, measure: number): string =>
  sections.find((s) => measure >= s.from && measure <= s.to)?.label ?? '';
