/** What the ear heard of a piece over the weeks: how much of each measure was right, and what keeps going wrong. */
import { mondayOf, type Day } from './calendar';
import { holding, type LessonEvent } from './events';
import type { Heard } from './heard';

export interface HeardMeasure {
  readonly id: string;
  readonly number: string;
  /** Share of its notes that were right, by week; null where it was not heard. */
  readonly byWeek: readonly (number | null)[];
}

/** A slip that came more than once. */
export interface HeardSlip {
  readonly number: string;
  /** "F♯, not F" */
  readonly slip: string;
  /** Takes in which it came, of those of the measure that were looked at. */
  readonly times: number;
  readonly of: number;
}

export interface HeardHistory {
  /** Mondays of the weeks in which something was heard, the oldest first. */
  readonly weeks: readonly Day[];
  /** In the order of the music. */
  readonly measures: readonly HeardMeasure[];
  readonly slips: readonly HeardSlip[];
  readonly takes: number;
}

/** Weeks that are shown, and takes of a measure that are looked at for what keeps going wrong. */
const MOST_WEEKS = 8;
const LOOKED_AT = 4;
/** Takes from which a slip keeps coming, and slips that are named. */
const KEEPS = 2;
const MOST_SLIPS = 5;

type HeardEvent = LessonEvent & { readonly heard: Heard };

/** Undefined where the ear heard nothing that holds. */
export function heardHistory(events: readonly LessonEvent[]): HeardHistory | undefined {
  const heard = holding(events).filter((e): e is HeardEvent => e.heard !== undefined);
  if (heard.length === 0) return undefined;
  const weeks = [...new Set(heard.map((e) => mondayOf(e.day)))].sort().slice(-MOST_WEEKS);
  const takes = new Map<string, { readonly week: Day; readonly measure: Heard['measures'][number] }[]>();
  for (const { heard: take, day } of heard)
    for (const measure of take.measures) {
      const own = takes.get(measure.id);
      if (own) own.push({ week: mondayOf(day), measure });
      else takes.set(measure.id, [{ week: mondayOf(day), measure }]);
    }
  const inOrder = [...takes].sort((a, b) => placeOf(a[0]) - placeOf(b[0]));
  return {
    weeks,
    takes: heard.length,
    measures: inOrder.map(([id, own]) => ({
      id,
      number: own.at(-1)!.measure.number,
      byWeek: weeks.map((week) => {
        const last = own.findLast((take) => take.week === week);
        return last ? last.measure.right : null;
      }),
    })),
    slips: inOrder
      .flatMap(([, own]) => slipsThatKeep(own.slice(-LOOKED_AT).map((take) => take.measure)))
      .sort((a, b) => b.times / b.of - a.times / a.of || b.times - a.times)
      .slice(0, MOST_SLIPS),
  };
}

/** Measures of an introduction come before those of the file. */
const placeOf = (id: string): number => Number(id.slice(1)) - (id.startsWith('i') ? 1e6 : 0);

function slipsThatKeep(takes: Heard['measures']): HeardSlip[] {
  const times = new Map<string, number>();
  for (const { slips } of takes)
    for (const slip of new Set(slips)) times.set(slip, (times.get(slip) ?? 0) + 1);
  return [...times].flatMap(([slip, count]) =>
    count >= KEEPS ? [{ number: takes.at(-1)!.number, slip, times: count, of: takes.length }] : [],
  );
}
