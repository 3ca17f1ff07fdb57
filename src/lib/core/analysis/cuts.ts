/** A piece too long to be worked on at once, cut where its source has sections, and evenly where those are long or missing. */
import type { Score } from '../score/score';

/** Measures by index, both included. */
interface Cut {
  readonly from: number;
  readonly to: number;
  /** What the source or the teacher calls it; '' where nobody does. */
  readonly name: string;
}

/** A section of up to so many measures stays whole; a longer one is cut into about equal parts of whole phrases, of at most as many. */
const LONGEST = 96;
const PHRASE = 8;

export function cutsOf(score: Score): Cut[] {
  const { measures } = score;
  const starts = score.sectionStarts
    ? score.sectionStarts.map(({ measure, name }) => ({ at: measure, name: name ?? '' }))
    : measures.flatMap((m, at) => (m.section ? [{ at, name: m.section }] : []));
  const all = starts[0]?.at === 0 ? starts : [{ at: 0, name: '' }, ...starts];
  return all.flatMap(({ at, name }, i) => {
    const end = all[i + 1]?.at ?? measures.length;
    const parts = Math.max(1, Math.ceil((end - at) / LONGEST));
    const each = parts === 1 ? end - at : Math.ceil((end - at) / parts / PHRASE) * PHRASE;
    return Array.from({ length: parts }, (_, part) => ({
      from: at + each * part,
      to: Math.min(at + each * (part + 1), end) - 1,
      name,
    })).filter(({ from, to }) => to >= from);
  });
}
