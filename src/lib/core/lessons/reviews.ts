/**
 * What fades, and when it is due to be played again: the grades of what was played with both hands, as ts-fsrs remembers them. One
 * grade a day counts, the last one; a tick without a grade counts as "well".
 */
import { createEmptyCard, fsrs, type Card, type Grade as Rating } from 'ts-fsrs';
import { covers } from '../score/places';
import { daysAfter, type Day } from './calendar';
import { isGained, UNGRADED, type Grade, type LessonEvent } from './events';
import type { Chunk } from './plan';
import { isAtGoal, type Learned, type MeasureState } from './progress';

/** Played again before it is likelier than one in ten to be lost, and at the latest after four months. */
const SCHEDULER = fsrs({
  request_retention: 0.9,
  maximum_interval: 120,
  enable_fuzz: false,
  enable_short_term: false,
});

/** What is remembered of something that was learned. */
interface Memory {
  /** Days after which nine of ten are still there. */
  readonly stability: number;
  readonly last: Day;
  readonly due: Day;
  /** How often it was played, by days. */
  readonly times: number;
  readonly grade: Grade;
}

const noon = (day: Day): Date => new Date(`${day}T12:00:00Z`);

/** The memory that grades leave, each with its day, in order; null for none. */
export function memoryOf(grades: readonly { readonly day: Day; readonly grade: Grade }[]): Memory | null {
  const byDay = new Map(
    [...grades].sort((a, b) => a.day.localeCompare(b.day)).map(({ day, grade }) => [day, grade]),
  );
  const [first] = byDay.keys();
  if (first === undefined) return null;
  let card: Card = createEmptyCard(noon(first));
  for (const [day, grade] of byDay) card = SCHEDULER.next(card, noon(day), grade as number as Rating).card;
  const [last, grade] = [...byDay].at(-1)!;
  const due = card.due.toISOString().slice(0, 10);
  return {
    stability: card.stability,
    last,
    // What was just played is not due on the same day, however badly it went.
    due: due > last ? due : daysAfter(last, 1),
    times: byDay.size,
    grade,
  };
}

const DAY = 86_400_000;

/** How likely it is still there on a day, 0 to 1. */
export const retention = ({ stability, last }: Pick<Memory, 'stability' | 'last'>, day: Day): number =>
  SCHEDULER.forgetting_curve(Math.max(0, (Date.parse(day) - Date.parse(last)) / DAY), stability);

/** Something learned that is kept alive. */
export interface Review extends Memory {
  /** Measures by their ids: a chunk, or from the first measure of the piece to its last. */
  readonly chunk: string;
  readonly isWhole: boolean;
}

const graded = (event: LessonEvent): { day: Day; grade: Grade } => ({
  day: event.day,
  grade: event.grade ?? UNGRADED,
});

/** Playing with both hands from memory, at a tempo, or again: what tells whether it is still there. */
const isPlayed = (event: LessonEvent): boolean => event.hand === 'both';

/**
 * What of a piece is kept alive: every chunk that is learned with both hands; once the piece is known, the piece as a whole, and the
 * chunks that went badly since. `states` are those of its measures; `goal` in quarter notes per minute.
 */
export function reviewsOf(
  chunks: readonly Chunk[],
  { events }: Pick<Learned, 'events'>,
  states: readonly MeasureState[],
  ids: readonly string[],
  goal: number,
): Review[] {
  const played = events.filter(isPlayed);
  const known = knownSince(chunks, states, played, goal);
  const ofChunks = chunks.flatMap((chunk): Review[] => {
    const own = played.filter((e) => covers(e, chunk));
    const begun = own.findIndex(isGained);
    const memory = begun < 0 ? null : memoryOf(own.slice(begun).map(graded));
    const isLearned = states.slice(chunk.from, chunk.to + 1).every((s) => s === 'both' || s === 'goal');
    return memory && isLearned ? [{ ...memory, chunk: chunk.id, isWhole: false }] : [];
  });
  if (known === null) return ofChunks;
  const first = Math.min(...chunks.map((c) => c.from));
  const last = Math.max(...chunks.map((c) => c.to));
  const through = played.filter((e) => e.day > known && e.from <= first && e.to >= last);
  const memory = memoryOf([{ day: known, grade: UNGRADED }, ...through.map(graded)])!;
  const since = through.at(-1)?.day ?? known;
  return [
    { ...memory, chunk: `${ids[first]!}..${ids[last]!}`, isWhole: true },
    ...ofChunks.filter((r) => r.grade <= 2 && r.last > since),
  ];
}

/** The day on which the last measure of a plan came to its goal; null while one has not. */
function knownSince(
  chunks: readonly Chunk[],
  states: readonly MeasureState[],
  played: Learned['events'],
  goal: number,
): Day | null {
  const measures = chunks.flatMap((c) => Array.from({ length: c.to - c.from + 1 }, (_, i) => c.from + i));
  if (measures.length === 0 || measures.some((m) => states[m] !== 'goal')) return null;
  const arrived = played.filter((e) => isAtGoal(e, goal));
  const days = measures.flatMap((m) => arrived.find((e) => e.from <= m && e.to >= m)?.day ?? []);
  return days.sort().at(-1) ?? null;
}

/** What is due on a day, what is likeliest lost first, at most so many: few enough to do. */
export const dueOn = <T extends Review>(reviews: readonly T[], day: Day, most: number): T[] =>
  reviews
    .filter((r) => r.due <= day)
    .map((review) => ({ review, left: retention(review, day) }))
    .sort((a, b) => a.left - b.left || a.review.chunk.localeCompare(b.review.chunk))
    .slice(0, most)
    .map(({ review }) => review);
