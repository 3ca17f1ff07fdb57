/**
 * When a piece will be ready: what is left of its plan in minutes, against what this learner does in a week.
 *
 * A learner's pace is what their steps were worth in minutes of the table, over the minutes that they had: 1 is usual. It begins as if
 * three usual weeks had been seen, and is corrected by every week; the range is the one that eight of ten would fall in, and narrows
 * with the weeks and with their evenness.
 */
import { daysAfter, type Day } from './calendar';
import type { ChunkState } from './progress';

/** Weeks of usual pace that a learner's own are weighed against, and how uneven those are taken to be. */
const BEFORE = { weeks: 3, spread: 0.5 };
/** Weeks that are looked back on. */
export const LOOK_BACK = 12;
/** Days of a week on which a learner practises. */
export const PRACTICE_DAYS = 5;
/** Standard deviations that hold eight of ten. */
const EIGHT_OF_TEN = 1.28;
/** The slowest pace that is reckoned with: nobody is told of years. */
const SLOWEST_PACE = 0.1;

export interface Pace {
  /** 1 is usual. */
  readonly pace: number;
  /** Of the pace, to both sides: 0.3 for thirty per cent. */
  readonly spread: number;
  /** Weeks that were seen. */
  readonly weeks: number;
}

/** A learner's pace from the minutes that each of their last weeks brought (at most LOOK_BACK), and the minutes they had in a week. */
export function paceOf(gained: readonly number[], minutesAWeek: number): Pace {
  const weeks = gained.slice(-LOOK_BACK).map((minutes) => minutes / Math.max(1, minutesAWeek));
  const n = BEFORE.weeks + weeks.length;
  const pace = Math.max(SLOWEST_PACE, (BEFORE.weeks + weeks.reduce((a, b) => a + b, 0)) / n);
  const variance =
    (BEFORE.weeks * BEFORE.spread ** 2 + weeks.reduce((total, w) => total + (w - pace) ** 2, 0)) / n;
  const spread = (EIGHT_OF_TEN * Math.sqrt(variance / n)) / pace;
  return { pace, spread: Math.min(0.6, Math.max(0.1, spread)), weeks: weeks.length };
}

/** Minutes of a usual pace that are left in a plan; a ladder that was climbed in part is left in part. */
export const minutesLeft = (states: readonly ChunkState[]): number =>
  states
    .flatMap(({ steps }) => steps.filter((s) => !s.passed))
    .reduce((total, step) => {
      const rungs = step.ladder.length;
      const climbed =
        step.tempi === 'ladder' && rungs > 0
          ? step.ladder.filter((t) => t <= (step.tempo ?? 0)).length / rungs
          : 0;
      return total + step.minutes * (1 - climbed);
    }, 0);

export interface Estimate {
  readonly weeks: number;
  /** The earliest and the latest day, eight of ten times. */
  readonly from: Day;
  readonly to: Day;
  /** Against the goal date, where there is one: in time, perhaps, or missed. */
  readonly goal: 'met' | 'perhaps' | 'missed' | null;
}

/** When what is left will be ready. null where nothing is left. `minutesADay` of one piece. */
export function estimateOf(
  left: number,
  { pace, spread }: Pace,
  minutesADay: number,
  today: Day,
  goalDate: Day | null,
): Estimate | null {
  if (left <= 0) return null;
  const weeks = left / (Math.max(1, minutesADay) * PRACTICE_DAYS * pace);
  const after = (w: number): Day => daysAfter(today, Math.min(3650, Math.max(1, Math.ceil(w * 7))));
  const [from, to] = [after(weeks / (1 + spread)), after(weeks / (1 - spread))];
  const goal = goalDate === null ? null : to <= goalDate ? 'met' : from <= goalDate ? 'perhaps' : 'missed';
  return { weeks, from, to, goal };
}
