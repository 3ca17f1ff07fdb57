/** What is set for the week: from what is next and what is due, by the minutes a day that there are. */

import { REVIEW } from './steps';

/** A piece that is being learned, or kept. */
export interface PieceToPractise {
  readonly assignment: string;
  /** Nearest first. */
  readonly next: readonly {
    readonly chunk: { readonly id: string };
    readonly step: { readonly id: string; readonly minutes: number };
    readonly tempo: number | null;
  }[];
  /** Due ones, what is likeliest lost first. */
  readonly due: readonly { readonly chunk: string }[];
}

export interface WeekItem {
  readonly assignment: string;
  readonly chunk: string;
  /** Ids of steps, in order. */
  readonly steps: readonly string[];
  readonly tempo: number | null;
  /** A day. */
  readonly minutes: number;
  readonly why: 'next' | 'due';
}

/** What a review takes a day, and how many there are at most: few enough to do. */
const REVIEW_MINUTES = 2;
const MOST_REVIEWS = 3;
/** Of the time there is, reviews take at most this share. */
const REVIEW_SHARE = 0.34;
/** Shorter than this nothing is worth opening the book for. */
const SHORTEST = 4;
/** Steps of a chunk that are set at once. */
const STEPS_AT_ONCE = 3;
const MOST_CHUNKS = 3;

/** The week's practice, at most `minutesADay` a day. The first piece comes first. */
export function weekOf(pieces: readonly PieceToPractise[], minutesADay: number): WeekItem[] {
  const room = Math.max(1, Math.floor((minutesADay * REVIEW_SHARE) / REVIEW_MINUTES));
  // What is worked on anyway need not be played again besides.
  const worked = new Set(
    pieces.flatMap(({ assignment, next }) => next.map((n) => `${assignment} ${n.chunk.id}`)),
  );
  const reviews = pieces
    .flatMap(({ assignment, due }) => due.map((review) => ({ assignment, review })))
    .filter(({ assignment, review }) => !worked.has(`${assignment} ${review.chunk}`))
    .slice(0, Math.min(MOST_REVIEWS, room))
    .map(({ assignment, review }): WeekItem => ({
      assignment,
      chunk: review.chunk,
      steps: [REVIEW],
      tempo: null,
      minutes: REVIEW_MINUTES,
      why: 'due',
    }));
  const left = minutesADay - reviews.length * REVIEW_MINUTES;
  const chunks = pieces.flatMap(({ assignment, next }) => {
    const own = [...new Set(next.map((n) => n.chunk.id))];
    return own.map((chunk) => ({
      assignment,
      chunk,
      steps: next.filter((n) => n.chunk.id === chunk).slice(0, STEPS_AT_ONCE),
    }));
  });
  // One chunk of every piece before a second one of any.
  const seen = new Map<string, number>();
  const ranked = chunks
    .map((c) => {
      const rank = seen.get(c.assignment) ?? 0;
      seen.set(c.assignment, rank + 1);
      return { ...c, rank };
    })
    .sort((a, b) => a.rank - b.rank);
  const count = Math.min(MOST_CHUNKS, ranked.length, Math.max(1, Math.floor(left / SHORTEST)));
  const taken = left < 1 ? [] : ranked.slice(0, count);
  // Each has what is worth opening the book for; what is left goes by what there is to do.
  const least = Math.min(SHORTEST, left);
  const weights = taken.map(({ steps }) => steps.reduce((total, { step }) => total + step.minutes, 0) || 1);
  const whole = weights.reduce((a, b) => a + b, 0);
  const free = left - least * taken.length;
  const shares = weights.map((w) => least + Math.floor((free * w) / whole));
  if (shares.length > 0) shares[0]! += left - shares.reduce((a, b) => a + b, 0);
  return [
    ...taken.map(({ assignment, chunk, steps }, i): WeekItem => ({
      assignment,
      chunk,
      steps: steps.map(({ step }) => step.id),
      tempo: steps.find((s) => s.tempo !== null)?.tempo ?? null,
      minutes: shares[i]!,
      why: 'next',
    })),
    ...reviews,
  ];
}
