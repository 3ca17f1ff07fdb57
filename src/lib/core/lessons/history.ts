/** What became of a piece over time: steps gained, measures learned and tempi reached, for charts and for a learner's pace. */
import type { Form } from '../analysis/form';
import { mondayOf, type Day } from './calendar';
import { isGained } from './events';
import type { Chunk } from './plan';
import { gainsOf, measureStates, type Learned } from './progress';
import { REVIEW } from './steps';
import { strandSums, type StrandSums } from './strengths';
import { strandTotals, type StrandTotals } from './suits';

export interface History {
  /** By Monday: minutes of a usual pace gained, and measures that came to both hands. */
  readonly weeks: readonly { readonly monday: Day; readonly minutes: number; readonly measures: number }[];
  /** The best tempo with both hands of each day on which one was measured, in quarter notes per minute. */
  readonly tempi: readonly { readonly day: Day; readonly tempo: number }[];
  /** How often something was played again, by Monday. */
  readonly reviews: readonly { readonly monday: Day; readonly count: number }[];
  /** What its graded events weigh in each kind of difficulty, and what its learned measures have of each. */
  readonly graded: StrandSums;
  readonly learned: StrandTotals;
}

const added = (sums: Map<Day, number>, day: Day, amount: number): Map<Day, number> =>
  sums.set(day, (sums.get(day) ?? 0) + amount);

/**
 * `strands` are points of each kind of difficulty by measure; `isCounted` says which measures are counted as new ones (a pickup is not); `goal` in quarter
 * notes per minute.
 */
export function historyOf(
  chunks: readonly Chunk[],
  learned: Learned,
  { firstSeen }: Pick<Form, 'firstSeen'>,
  strands: readonly (readonly number[])[],
  isCounted: (measure: number) => boolean,
  goal: number,
): History {
  const minutes = new Map<Day, number>();
  for (const gain of gainsOf(chunks, learned)) added(minutes, mondayOf(gain.day), gain.minutes);
  const measures = new Map<Day, number>();
  for (const { day } of learnedOn(learned, firstSeen, goal).filter(({ measure }) => isCounted(measure)))
    added(measures, mondayOf(day), 1);
  const tempi = new Map<Day, number>();
  const reviews = new Map<Day, number>();
  for (const event of learned.events) {
    if (event.step === REVIEW) added(reviews, mondayOf(event.day), 1);
    if (event.hand === 'both' && event.tempo !== null && isGained(event))
      tempi.set(event.day, Math.max(tempi.get(event.day) ?? 0, event.tempo));
  }
  const mondays = [...new Set([...minutes.keys(), ...measures.keys()])].sort();
  return {
    weeks: mondays.map((monday) => ({
      monday,
      minutes: Math.round((minutes.get(monday) ?? 0) * 10) / 10,
      measures: measures.get(monday) ?? 0,
    })),
    tempi: [...tempi].map(([day, tempo]) => ({ day, tempo })).sort((a, b) => a.day.localeCompare(b.day)),
    reviews: [...reviews].map(([monday, count]) => ({ monday, count })),
    graded: strandSums({ events: learned.events, strands }),
    learned: strandTotals(
      measureStates({ firstSeen }, learned, goal).flatMap((state, i) =>
        (state === 'both' || state === 'goal') && firstSeen[i] === i && strands[i] ? [strands[i]] : [],
      ),
    ),
  };
}

/** The day on which each new measure came to both hands, of those that did. */
function learnedOn({ events, byMeasure }: Learned, firstSeen: readonly number[], goal: number) {
  const days: { day: Day; measure: number }[] = [];
  const known = new Set<number>();
  const byDay = [...new Set(events.map((e) => e.day))].sort();
  for (const day of byDay) {
    const until = events.filter((e) => e.day <= day);
    measureStates({ firstSeen }, { events: until, byMeasure }, goal).forEach((state, i) => {
      if (firstSeen[i] !== i || known.has(i) || (state !== 'both' && state !== 'goal')) return;
      known.add(i);
      days.push({ day, measure: i });
    });
  }
  return days;
}
