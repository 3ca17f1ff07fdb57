/** From a form to the chunks that are learned: two to four measures at the boundaries of phrases; what comes again is learned once. */
import type { Form } from '../analysis/form';
import type { Places } from '../score/places';

/** What chunks need of a form. */
export type ChunkForm = Pick<Form, 'phrases' | 'firstSeen'> & {
  readonly sections: readonly Pick<Form['sections'][number], 'label' | 'from' | 'to'>[];
};

/** The shortest chunk, and the longest but for a pickup in front of it. */
const SHORTEST = 2;
const LONGEST = 4;

const lengthOf = ({ from, to }: Places): number => to - from + 1;

/** The halves of a phrase, which hold its middle measure both where it has one; a chunk is never cut elsewhere. */
function halvesOf({ from, to }: Places): readonly [first: Places, second: Places] {
  const half = Math.ceil(lengthOf({ from, to }) / 2);
  return [
    { from, to: from + half - 1 },
    { from: to - half + 1, to },
  ];
}

/**
 * The chunks of a form, front to back: its phrases, as far as they are new. Of one that comes again all but for a few measures only
 * the half is learned in which they are.
 */
export function chunksOf({ phrases, firstSeen }: ChunkForm): Places[] {
  const newIn = ({ from, to }: Places): number =>
    firstSeen.slice(from, to + 1).filter((first, i) => first === from + i).length;
  const parts = phrases.flatMap(({ from, to }): Places[] => {
    const phrase = { from, to };
    const all = newIn(phrase);
    if (all === 0) return [];
    const half = halvesOf(phrase).find((h) => newIn(h) === all && lengthOf(h) >= SHORTEST);
    return [half ?? phrase];
  });
  const isAlone = (places: Places): boolean => lengthOf(places) < SHORTEST;
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
