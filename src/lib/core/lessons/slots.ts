/** Weekly lessons, and the days on which they are otherwise: moved, cancelled or doubled, once or from a day on, and holidays. */
import { daysAfter, weekdayOf, type Day } from './calendar';

/** A lesson that comes every week. */
export interface Slot {
  readonly id: string;
  /** A learner, or a class. */
  readonly whose: string;
  /** 1 Monday … 7 Sunday. */
  readonly weekday: number;
  /** "16:30", by the studio's clock. */
  readonly time: string;
  readonly minutes: number;
  /** First day, and last day; null without end. */
  readonly from: Day;
  readonly until: Day | null;
}

/** What is otherwise on one day of a slot. */
export interface SlotChange {
  readonly slot: string;
  /** The day on which it would have been. */
  readonly day: Day;
  readonly kind: 'cancelled' | 'moved' | 'doubled';
  /** Where it was moved to. */
  readonly toDay?: Day | null;
  readonly toTime?: string | null;
}

export interface Holiday {
  readonly from: Day;
  readonly to: Day;
  readonly name: string;
}

/** A lesson on a day. */
export interface Occurrence {
  readonly slot: string;
  readonly whose: string;
  readonly day: Day;
  readonly time: string;
  readonly minutes: number;
  /** The day of its week on which it would have been: names it among the others of its slot. */
  readonly usual: Day;
  readonly state: 'usual' | 'moved' | 'doubled' | 'cancelled' | 'holiday';
  /** Why there is none. */
  readonly because?: string;
}

/** The first day from `day` on that is such a weekday. */
const nextWeekday = (day: Day, weekday: number): Day => daysAfter(day, (weekday - weekdayOf(day) + 7) % 7);

/** A move may lead this far away from the day on which a lesson would have been. */
export const FARTHEST_MOVE = 60;

/** Every lesson from one day to another, in order; those that are not given, too, with why. */
export function occurrences(
  slots: readonly Slot[],
  changes: readonly SlotChange[],
  holidays: readonly Holiday[],
  from: Day,
  to: Day,
): Occurrence[] {
  const changed = new Map(changes.map((c) => [`${c.slot} ${c.day}`, c]));
  const holidayOn = (day: Day): Holiday | undefined => holidays.find((h) => day >= h.from && day <= h.to);
  const all = slots.flatMap((slot) => {
    const found: Occurrence[] = [];
    const begin = daysAfter(from, -FARTHEST_MOVE);
    for (
      let usual = nextWeekday(slot.from > begin ? slot.from : begin, slot.weekday);
      usual <= daysAfter(to, FARTHEST_MOVE) && (slot.until === null || usual <= slot.until);
      usual = daysAfter(usual, 7)
    )
      found.push(occurrenceOf(slot, usual, changed.get(`${slot.id} ${usual}`), holidayOn(usual)));
    return found;
  });
  return all
    .filter((o) => o.day >= from && o.day <= to)
    .sort((a, b) => `${a.day} ${a.time}`.localeCompare(`${b.day} ${b.time}`) || a.slot.localeCompare(b.slot));
}

function occurrenceOf(
  slot: Slot,
  usual: Day,
  change: SlotChange | undefined,
  holiday: Holiday | undefined,
): Occurrence {
  const { id, whose, time, minutes } = slot;
  const plain = { slot: id, whose, day: usual, time, minutes, usual };
  switch (change?.kind) {
    case 'cancelled':
      return { ...plain, state: 'cancelled', because: 'cancelled' };
    // What was moved into another day is given, also where the usual day is a holiday.
    case 'moved':
      return { ...plain, day: change.toDay ?? usual, time: change.toTime ?? time, state: 'moved' };
    case 'doubled':
      return holiday
        ? { ...plain, state: 'holiday', because: holiday.name }
        : { ...plain, minutes: 2 * minutes, state: 'doubled' };
    case undefined:
      return holiday ? { ...plain, state: 'holiday', because: holiday.name } : { ...plain, state: 'usual' };
  }
}

/** How a lesson stands: a change that was meant for another state of it meets one that it has not seen. */
export const stateOf = ({ day, time, minutes, state }: Occurrence): string =>
  `${state} ${day} ${time} ${minutes}`;

/** Whether a lesson is given. */
export const isGiven = ({ state }: Occurrence): boolean => state !== 'cancelled' && state !== 'holiday';

/** A slot that is otherwise from a day on: it ends before that day, and another one begins. */
export function fromDayOn(
  slot: Slot,
  day: Day,
  change: Partial<Pick<Slot, 'weekday' | 'time' | 'minutes'>> | null,
  newId: string,
): { readonly ends: Slot; readonly begins: Slot | null } {
  return {
    ends: { ...slot, until: daysAfter(day, -1) },
    begins: change && { ...slot, ...change, id: newId, from: day },
  };
}
