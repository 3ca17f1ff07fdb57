/** How far a learner is: the state of every measure and hand, of every step of a plan, and what is next. Computed from the events. */
import type { Form } from '../analysis/form';
import type { Chunk, Step } from './plan';
import { covers, follows, type Places } from '../score/places';
import { placesOf } from './chunkId';
import { holding, isGained, type LessonEvent } from './events';
import { isLearning, passedBy, REVIEW } from './steps';

/** What was reached of a step in a measure. */
interface Reached {
  /** The best tempo, in quarter notes per minute; null where none was measured. */
  readonly tempo: number | null;
  /** When it was last gained. */
  readonly at: string;
}

/** What was reached of a step in some beats of a measure: all of them, or those of a chunk that begins or ends inside it. */
interface ReachedBeats extends Reached {
  readonly beats: Beats;
}

/** Beats of a measure, the last included; all of them go from 0 to infinity. */
interface Beats {
  readonly first: number;
  readonly last: number;
}

/** The beats of a measure that lie in some places. */
const beatsOf = ({ from, to, fromBeat, toBeat }: Places, measure: number): Beats => ({
  first: measure === from ? (fromBeat ?? 0) : 0,
  last: measure === to ? (toBeat ?? Infinity) : Infinity,
});

const ALL: Beats = { first: 0, last: Infinity };

/** Whether some stretches of beats together have all of others. */
function fill(parts: readonly Beats[], { first, last }: Beats): boolean {
  let reached = first;
  for (const part of [...parts].sort((a, b) => a.first - b.first)) {
    if (part.first > reached) break;
    reached = Math.max(reached, part.last + 1);
  }
  return reached === Infinity || reached > last;
}

/** What was reached in each measure, by index. */
export interface Learned {
  readonly byMeasure: readonly ReadonlyMap<string, readonly ReachedBeats[]>[];
  /** The events that hold, with the measures of this version that each is about. */
  readonly events: readonly (LessonEvent & Places)[];
  /** Steps gained in measures that this version does not have. */
  readonly elsewhere: readonly LessonEvent[];
}

/**
 * Reads the events of an assignment, in any order, into the measures of a version; with what was carried over from earlier versions
 * (carried.ts), which no event here takes back.
 */
export function learnedIn(
  ids: readonly string[],
  events: readonly LessonEvent[],
  carried: readonly LessonEvent[] = [],
): Learned {
  const byMeasure = ids.map(() => new Map<string, ReachedBeats[]>());
  const elsewhere = new Map<string, LessonEvent>();
  const placed: Learned['events'][number][] = [];
  for (const event of inOrderOfTime(carried, holding(events))) {
    const places = placesOf(ids, event.chunk);
    if (!places) {
      if (isGained(event)) elsewhere.set(`${event.chunk} ${event.step}`, event);
      continue;
    }
    placed.push({ ...event, ...places });
    if (!isGained(event)) continue;
    for (let i = places.from; i <= places.to; i++) {
      const known = byMeasure[i]!.get(event.step) ?? [];
      byMeasure[i]!.set(event.step, withReached(known, { beats: beatsOf(places, i), ...event }));
    }
  }
  return { byMeasure, events: placed, elsewhere: [...elsewhere.values()] };
}

/** Events of earlier versions among those of this one, by their ids, which rise with time. */
const inOrderOfTime = (
  carried: readonly LessonEvent[],
  own: readonly LessonEvent[],
): readonly LessonEvent[] => (carried.length === 0 ? own : [...carried, ...own].sort((a, b) => a.id - b.id));

/** With something more that was reached: of the same beats the best tempo and the last time are kept. */
function withReached(known: readonly ReachedBeats[], { beats, tempo, at }: ReachedBeats): ReachedBeats[] {
  const isSame = (r: ReachedBeats): boolean => r.beats.first === beats.first && r.beats.last === beats.last;
  const before = known.find(isSame)?.tempo ?? 0;
  return [...known.filter((r) => !isSame(r)), { beats, tempo: Math.max(before, tempo ?? 0) || null, at }];
}

/** What was reached in some beats of a measure: at once, else part by part, at the slowest of their tempi; nothing where a beat is missing. */
function reachedIn(known: readonly ReachedBeats[] | undefined, wanted: Beats): Reached[] {
  if (!known) return [];
  const whole = known.filter(({ beats }) => beats.first <= wanted.first && beats.last >= wanted.last);
  if (whole.length > 0)
    return [
      {
        tempo: Math.max(...whole.map((r) => r.tempo ?? 0)) || null,
        at: whole.map((r) => r.at).reduce((a, b) => (a > b ? a : b)),
      },
    ];
  const parts = known.filter(({ beats }) => beats.first <= wanted.last && beats.last >= wanted.first);
  return fill(
    parts.map((r) => r.beats),
    wanted,
  )
    ? parts
    : [];
}

/** A step of a chunk as it stands. */
export interface StepState {
  /** Set where it is done in every measure of the chunk: the slowest tempo of them, and when the last was reached. */
  readonly done: Reached | null;
  /** Measures of the chunk in which it was gained. */
  readonly measures: number;
  /** The tempo at which all of the chunk was played, on the way up. */
  readonly tempo: number | null;
}

function stepState({ byMeasure }: Pick<Learned, 'byMeasure'>, chunk: Chunk, step: Step): StepState {
  const inMeasures = byMeasure
    .slice(chunk.from, chunk.to + 1)
    .map((steps, i) => reachedIn(steps.get(step.id), beatsOf(chunk, chunk.from + i)));
  const measures = inMeasures.filter((reached) => reached.length > 0).length;
  const isWhole = measures > chunk.to - chunk.from;
  const reached = inMeasures.flat();
  const tempi = reached.flatMap((r) => r.tempo ?? []);
  // A measure that was played without a measured tempo says nothing of how fast all of it goes.
  const tempo = isWhole && tempi.length === reached.length ? Math.min(...tempi) : null;
  const goal = step.ladder.at(-1) ?? 0;
  const isDone = isWhole && (step.tempi !== 'ladder' || (tempo ?? 0) >= goal);
  const at = reached
    .map((r) => r.at)
    .sort()
    .at(-1);
  return { done: isDone ? { tempo, at: at! } : null, measures, tempo };
}

/** A chunk with its steps as they stand. */
export interface ChunkState {
  readonly chunk: Chunk;
  readonly steps: readonly (Step & StepState & { readonly passed: boolean; readonly waits: boolean })[];
}

/** Whether what a step has to be joined to can be joined: the chunk that ends where it begins has both hands. */
function hasNeighbour(
  chunks: readonly Chunk[],
  passed: readonly ReadonlySet<string>[],
  chunk: Chunk,
): boolean {
  const before = chunks.findIndex((c) => follows(c, chunk));
  return before < 0 || !chunks[before]!.steps.some((s) => s.id === 'both') || passed[before]!.has('both');
}

/** Every step of a plan as it stands, in the plan's order. */
export function planState(chunks: readonly Chunk[], learned: Pick<Learned, 'byMeasure'>): ChunkState[] {
  const states = chunks.map((chunk) => chunk.steps.map((step) => stepState(learned, chunk, step)));
  // Who has begun to climb has what comes before; the ladder itself is passed at its top.
  const passed = chunks.map((chunk, c) => {
    const stateOf = (id: string): StepState | undefined =>
      states[c]![chunk.steps.findIndex((s) => s.id === id)];
    const gained = passedBy(
      chunk.steps.flatMap(({ id }, s) => (states[c]![s]!.measures > chunk.to - chunk.from ? [id] : [])),
    );
    return new Set([...gained].filter((id) => id !== 'ladder' || stateOf(id)?.done));
  });
  return chunks.map((chunk, c) => ({
    chunk,
    steps: chunk.steps.map((step, s) => ({
      ...step,
      ...states[c]![s]!,
      passed: passed[c]!.has(step.id),
      waits: step.id === 'join' && !hasNeighbour(chunks, passed, chunk),
    })),
  }));
}

export interface NextStep {
  readonly chunk: Chunk;
  readonly step: Step;
  /** Quarter notes per minute: the rung above what was reached; null where nothing is played. */
  readonly tempo: number | null;
}

/** The rung of a step that comes next, above a tempo that was reached. */
export const nextRung = ({ ladder }: Pick<Step, 'ladder'>, reached: number | null): number | null =>
  ladder.find((t) => t > (reached ?? 0)) ?? ladder.at(-1) ?? null;

/** What is next in a plan, nearest first: learning before polishing, in the plan's order, at most so many steps. */
export function nextSteps(states: readonly ChunkState[], most: number): NextStep[] {
  const open = states.flatMap(({ chunk, steps }) =>
    steps
      .filter((s) => !s.passed && !s.waits)
      .map((step) => ({ chunk, step, tempo: nextRung(step, step.tempo) })),
  );
  return [...open.filter((o) => isLearning(o.step)), ...open.filter((o) => !isLearning(o.step))].slice(
    0,
    most,
  );
}

/** How far a measure is: none, one hand, both, or at the goal tempo. */
export type MeasureState = 'open' | 'right' | 'left' | 'both' | 'goal';

/** Whether an event shows its measures at the goal (quarter notes per minute), or from memory. */
export const isAtGoal = (event: LessonEvent, goal: number): boolean =>
  isGained(event) && (event.step === 'memory' || (event.step === 'ladder' && (event.tempo ?? 0) >= goal));

const BETTER: readonly MeasureState[] = ['open', 'left', 'right', 'both', 'goal'];

/** State of every measure by index; what comes again is as far as it is anywhere. */
export function measureStates(
  { firstSeen }: Pick<Form, 'firstSeen'>,
  { events, byMeasure }: Pick<Learned, 'byMeasure' | 'events'>,
  goal: number,
): MeasureState[] {
  const played = byMeasure.map(() => ({
    right: [] as Beats[],
    left: [] as Beats[],
    both: [] as Beats[],
    goal: [] as Beats[],
  }));
  for (const event of events) {
    if (!isGained(event) || event.hand === null || event.step === REVIEW) continue;
    for (let i = event.from; i <= event.to; i++) {
      played[i]![event.hand].push(beatsOf(event, i));
      if (isAtGoal(event, goal)) played[i]!.goal.push(beatsOf(event, i));
    }
  }
  const own = played.map(({ right, left, both, goal: atGoal }): MeasureState => {
    if (fill(atGoal, ALL)) return 'goal';
    const [isRight, isLeft] = [fill([...right, ...both], ALL), fill([...left, ...both], ALL)];
    if (fill(both, ALL) || (isRight && isLeft)) return 'both';
    return isRight ? 'right' : isLeft ? 'left' : 'open';
  });
  const best = new Map<number, MeasureState>();
  own.forEach((state, i) => {
    const known = best.get(firstSeen[i]!) ?? 'open';
    best.set(firstSeen[i]!, BETTER.indexOf(state) > BETTER.indexOf(known) ? state : known);
  });
  return own.map((_, i) => best.get(firstSeen[i]!)!);
}

/** Steps gained for the first time, by the day: what a learner got further by. */
export function gainsOf(
  chunks: readonly Chunk[],
  { events }: Pick<Learned, 'events'>,
): { readonly day: string; readonly minutes: number; readonly step: string; readonly chunk: string }[] {
  const known = new Map<string, number>();
  return events.flatMap((event) => {
    if (!isGained(event) || event.step === REVIEW) return [];
    const chunk =
      chunks.find((c) => covers(c, event)) ?? chunks.find((c) => c.from >= event.from && c.from <= event.to);
    const step = chunk?.steps.find((s) => s.id === event.step);
    if (!chunk || !step) return [];
    const key = `${chunk.id} ${step.id}`;
    const rungs = Math.max(1, step.ladder.length);
    const reached =
      step.tempi === 'ladder' ? Math.max(1, step.ladder.filter((t) => t <= (event.tempo ?? 0)).length) : 1;
    const share = (step.tempi === 'ladder' ? reached / rungs : 1) - (known.get(key) ?? 0);
    if (share <= 0) return [];
    known.set(key, (known.get(key) ?? 0) + share);
    return [{ day: event.day, minutes: step.minutes * share, step: step.id, chunk: chunk.id }];
  });
}
