/** How fast a learner goes, from what became of all their pieces, and when each piece will be ready. */
import { daysAfter, mondayOf, type Day } from '$core/lessons/calendar';
import {
  estimateOf,
  LOOK_BACK,
  paceOf,
  PRACTICE_DAYS,
  type Estimate,
  type Pace,
} from '$core/lessons/estimate';
import type { History } from '$core/lessons/history';
import { isWhole, type AssignmentLine, type BrokenLine } from './progress';

/** Weeks from the first in which something was gained to the last that is over, at most so many as are looked back on. */
export function weeklyGains(histories: Iterable<History>, today: Day): number[] {
  const sums = new Map<Day, number>();
  for (const { weeks } of histories)
    for (const { monday, minutes } of weeks) sums.set(monday, (sums.get(monday) ?? 0) + minutes);
  const thisWeek = mondayOf(today);
  const first = [...sums.keys()].sort()[0];
  if (first === undefined) return [];
  const gains: number[] = [];
  for (let i = LOOK_BACK; i >= 1; i--) {
    const monday = daysAfter(thisWeek, -7 * i);
    if (monday >= first) gains.push(sums.get(monday) ?? 0);
  }
  return gains;
}

export const paceFrom = (histories: Iterable<History>, minutesADay: number, today: Day): Pace =>
  paceOf(weeklyGains(histories, today), minutesADay * PRACTICE_DAYS);

/** The piece in hand has so many times the minutes of another. */
const IN_HAND = 2;

/** When each piece that is being learned will be ready: they share the minutes of a day, the one in hand, which comes first, more. */
export function estimates(
  lines: readonly (AssignmentLine | BrokenLine)[],
  pace: Pace,
  minutesADay: number,
  today: Day,
): ReadonlyMap<string, Estimate> {
  const learning = lines.filter(isWhole).filter((l) => l.status === 'learning' || l.status === 'new');
  return new Map(
    learning.flatMap((line, i) => {
      const share = (i === 0 ? IN_HAND : 1) / (learning.length - 1 + IN_HAND);
      const estimate = estimateOf(line.left, pace, minutesADay * share, today, line.goalDate);
      return estimate ? [[line.id, estimate] as const] : [];
    }),
  );
}
