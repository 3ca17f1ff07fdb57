/** When lessons are: weekly slots of learners and classes, what is otherwise on a day, and holidays. */
import { lineText } from '$core/plainText';
import { daysAfter, weekdayOf, type Day } from '$core/lessons/calendar';
import {
  FARTHEST_MOVE,
  fromDayOn,
  occurrences,
  stateOf,
  type Holiday,
  type Occurrence,
  type Slot,
} from '$core/lessons/slots';
import { and, asc, eq, gte, isNull, or } from 'drizzle-orm';
import { z } from 'zod';
import { atomically, type Db } from '../db/open';
import { group, holiday, learner, slot, slotChange } from '../db/schema';
import { newId } from './ids';

const day = z.iso.date('Choose a day.');
const time = z.string().regex(/^([01]\d|2[0-3]):[0-5]\d$/, 'Write the time as 16:30.');
const minutes = z.coerce
  .number('Write the length in minutes.')
  .int()
  .min(10, 'A lesson takes at least ten minutes.')
  .max(180, 'A lesson takes at most three hours.');
const emptyAsNull = (value: unknown): unknown => (value === '' || value === undefined ? null : value);

const USUAL_MINUTES = 30;

/** What is done to one lesson, or to all from its day on. */
const which = {
  slot: z.string().max(40),
  /** The day on which it would usually be. */
  day,
  /** How it stood on the page (stateOf). */
  was: z.string().max(80).optional(),
};
export const slotEditSchema = z.discriminatedUnion('do', [
  z.object({
    do: z.literal('move'),
    ...which,
    scope: z.enum(['once', 'on']),
    toDay: day,
    toTime: time,
  }),
  z.object({ do: z.literal('cancel'), ...which, scope: z.enum(['once', 'on']) }),
  z.object({ do: z.literal('double'), ...which, scope: z.enum(['once', 'on']) }),
  /** As it usually is on that day. */
  z.object({ do: z.literal('restore'), ...which }),
]);
type SlotEdit = z.infer<typeof slotEditSchema>;

export const newSlotSchema = z.object({
  whose: z.string().regex(/^(learner|class) [\w-]{1,40}$/, 'Choose a student or a class.'),
  day,
  time,
  minutes,
  /** Every week, or on that day only. */
  every: z.enum(['week', 'once']),
});

export const holidaySchema = z
  .object({
    from: day,
    to: z.preprocess(emptyAsNull, day.nullable()),
    name: lineText().min(1, 'Give the holiday a name.').max(80, 'Keep the name under 80 letters.'),
  })
  .transform(({ from, to, name }) => ({ from, to: to ?? from, name }))
  .refine(({ from, to }) => to >= from, { message: 'The last day can’t be before the first.', path: ['to'] });

/** Slots of learners and classes that are in use, with whose they are. */
function allSlots(
  db: Db,
): (Slot & { readonly learnerId: string | null; readonly groupId: string | null; readonly name: string })[] {
  return db
    .select({ slot, learner: learner.name, group: group.name })
    .from(slot)
    .leftJoin(learner, and(eq(learner.id, slot.learnerId), isNull(learner.deletedAt)))
    .leftJoin(group, and(eq(group.id, slot.groupId), isNull(group.deletedAt)))
    .all()
    .flatMap(({ slot: row, learner: name, group: className }) => {
      const called = name ?? className;
      if (called === null) return [];
      return [{ ...row, whose: (row.learnerId ?? row.groupId)!, name: called }];
    });
}

/** A lesson on a day, with who comes. */
interface PlannedLesson extends Occurrence {
  readonly name: string;
  readonly learnerId: string | null;
  readonly groupId: string | null;
}

/** Every lesson from one day to another, in order; those that are not given with why. */
export function lessonsBetween(db: Db, from: Day, to: Day): PlannedLesson[] {
  const slots = allSlots(db);
  const byId = new Map(slots.map((s) => [s.id, s]));
  return occurrences(slots, db.select().from(slotChange).all().map(asChange), holidays(db), from, to).map(
    (o) => {
      const { name, learnerId, groupId } = byId.get(o.slot)!;
      return { ...o, name, learnerId, groupId };
    },
  );
}

const asChange = (row: typeof slotChange.$inferSelect) => ({
  slot: row.slotId,
  day: row.day,
  kind: row.kind,
  toDay: row.toDay,
  toTime: row.toTime,
});

export const holidays = (db: Db): (Holiday & { readonly id: string })[] =>
  db.select().from(holiday).orderBy(asc(holiday.from)).all();

export function addHoliday(db: Db, input: z.infer<typeof holidaySchema>): string {
  const id = newId();
  db.insert(holiday)
    .values({ id, ...input })
    .run();
  return id;
}

export const removeHoliday = (db: Db, id: string): boolean =>
  db.delete(holiday).where(eq(holiday.id, id)).run().changes > 0;

/** The slots that go on or begin on a day or later, of a learner. */
export const slotsOf = (db: Db, learnerId: string, from: Day): Slot[] =>
  db
    .select()
    .from(slot)
    .where(and(eq(slot.learnerId, learnerId), or(isNull(slot.until), gte(slot.until, from))))
    .orderBy(asc(slot.from))
    .all()
    .map((row) => ({ ...row, whose: learnerId }));

/** The usual weekday and time of every learner, as of a day. */
export function usualTimes(db: Db, on: Day): ReadonlyMap<string, Slot> {
  const found = new Map<string, Slot>();
  for (const s of allSlots(db))
    if (
      s.learnerId !== null &&
      (s.until === null || s.until >= on) &&
      s.from < (found.get(s.learnerId)?.from ?? '9')
    )
      found.set(s.learnerId, s);
  return found;
}

/** Whether the student or class that a new lesson is for is there. */
export function isThere(db: Db, whose: string): boolean {
  const [kind, id] = whose.split(' ') as ['learner' | 'class', string];
  const table = kind === 'learner' ? learner : group;
  return (
    db
      .select({ id: table.id })
      .from(table)
      .where(and(eq(table.id, id), isNull(table.deletedAt)))
      .get() !== undefined
  );
}

/** Adds a slot from a day on; only for that day where it is not weekly. */
export function addSlot(
  db: Db,
  { whose, day: from, time: at, minutes: length, every }: z.infer<typeof newSlotSchema>,
): string {
  const [kind, owner] = whose.split(' ') as ['learner' | 'class', string];
  const id = newId();
  db.insert(slot)
    .values({
      id,
      learnerId: kind === 'learner' ? owner : null,
      groupId: kind === 'class' ? owner : null,
      weekday: weekdayOf(from),
      time: at,
      minutes: length,
      from,
      until: every === 'once' ? from : null,
    })
    .run();
  return id;
}

/**
 * Gives a learner a weekly time from a day on, in place of the one they have; null for none. What was before that day stays as it
 * was. Where the time is the same, nothing changes.
 */
export const setWeekly = (
  db: Db,
  learnerId: string,
  weekly: { readonly weekday: number; readonly time: string; readonly minutes?: number } | null,
  from: Day,
): void =>
  atomically(db, (tx) => {
    const own = slotsOf(tx, learnerId, from).filter((s) => s.until === null || s.until > s.from);
    const first = own[0];
    const length = weekly?.minutes ?? first?.minutes ?? USUAL_MINUTES;
    if (
      weekly &&
      own.length === 1 &&
      first!.weekday === weekly.weekday &&
      first!.time === weekly.time &&
      first!.minutes === length
    )
      return;
    for (const s of own) endSlot(tx, fromDayOn(s, from, null, '').ends);
    if (weekly)
      tx.insert(slot)
        .values({ id: newId(), learnerId, weekday: weekly.weekday, time: weekly.time, minutes: length, from })
        .run();
  });

/** A slot that ends before it began was never there. */
function endSlot(db: Db, { id, from, until }: Slot): void {
  if (until !== null && until < from) db.delete(slot).where(eq(slot.id, id)).run();
  else db.update(slot).set({ until }).where(eq(slot.id, id)).run();
}

/** What came of a change of a lesson: it is done; there is no such lesson; or another window has changed it, to what is there. */
type SlotEdited = 'done' | 'gone' | { readonly there: PlannedLesson | null };

/** Does something to a lesson, or to all of its slot from its day on. */
export const editSlot = (db: Db, edit: SlotEdit): SlotEdited =>
  atomically(db, (tx) => {
    const row = allSlots(tx).find((s) => s.id === edit.slot);
    if (!row) return 'gone';
    if (edit.was !== undefined) {
      const around = [-FARTHEST_MOVE, FARTHEST_MOVE].map((by) => daysAfter(edit.day, by)) as [Day, Day];
      const there = lessonsBetween(tx, ...around).find((o) => o.slot === edit.slot && o.usual === edit.day);
      if (!there || stateOf(there) !== edit.was) return { there: there ?? null };
    }
    const own: Slot = { ...row, whose: (row.learnerId ?? row.groupId)! };
    if (edit.do === 'restore') {
      tx.delete(slotChange)
        .where(and(eq(slotChange.slotId, own.id), eq(slotChange.day, edit.day)))
        .run();
      return 'done';
    }
    if (edit.scope === 'once') {
      const change = {
        kind:
          edit.do === 'move'
            ? ('moved' as const)
            : edit.do === 'cancel'
              ? ('cancelled' as const)
              : ('doubled' as const),
        toDay: edit.do === 'move' ? edit.toDay : null,
        toTime: edit.do === 'move' ? edit.toTime : null,
      };
      tx.insert(slotChange)
        .values({ slotId: own.id, day: edit.day, ...change })
        .onConflictDoUpdate({ target: [slotChange.slotId, slotChange.day], set: change })
        .run();
      return 'done';
    }
    const begins =
      edit.do === 'cancel'
        ? null
        : edit.do === 'double'
          ? { minutes: 2 * own.minutes }
          : { weekday: weekdayOf(edit.toDay), time: edit.toTime };
    const from = edit.do === 'move' && edit.toDay < edit.day ? edit.toDay : edit.day;
    const next = fromDayOn(own, from, begins, newId());
    endSlot(tx, next.ends);
    if (next.begins) {
      const { whose: _whose, ...values } = next.begins;
      tx.insert(slot)
        .values({ ...values, learnerId: row.learnerId, groupId: row.groupId })
        .run();
    }
    return 'done';
  });
