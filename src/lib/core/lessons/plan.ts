/**
 * From a form to what is practised: chunks of a few measures, the steps of each, and which step is next.
 *
 * What was reached is said of measures of the source, by their ids. So a section that begins elsewhere, an introduction in front,
 * another level or key keep it: a step of a chunk is done when it was done in each of its measures, whatever chunk they were in
 * then.
 */
import type { Form } from '../analysis/form';
import type { Measure } from '../score/score';
import type { StepId } from './steps';
import { passedBy, STEPS, type Step } from './steps';

export interface Chunk {
  /** First and last measure by id: "m0..m3". */
  readonly id: string;
  readonly section: string;
  /** First and last measure, by index in the version. */
  readonly from: number;
  readonly to: number;
  readonly isFirst: boolean;
}

/** What was reached in one step of some measures. */
export interface ProgressEvent {
  /** First and last measure by id, as a chunk is named: "m0..m3". */
  readonly chunk: string;
  readonly step: StepId;
  /** Tempo reached, in quarter notes per minute; null where none was measured. */
  readonly tempo: number | null;
  /** ISO date and time. */
  readonly at: string;
  /** A step can be taken back; the record keeps both. */
  readonly undone: boolean;
}

/** The name of the measures from one to another, by their ids. */
export const chunkId = (from: string, to: string): string => `${from}..${to}`;

type Ids = readonly Pick<Measure, 'id'>[];

/** What chunks need of a form. */
export type ChunkForm = Pick<Form, 'phrases' | 'firstSeen'> & {
  readonly sections: readonly Pick<Form['sections'][number], 'label'>[];
};

/** The chunks to learn: phrases with at least one new measure. What comes again is learned where it first stands. */
export function chunksOf(form: ChunkForm, measures: Ids): Chunk[] {
  return form.phrases
    .filter((p) => form.firstSeen.slice(p.from, p.to + 1).some((first, i) => first === p.from + i))
    .map((p, i) => ({
      id: chunkId(measures[p.from]!.id, measures[p.to]!.id),
      section: form.sections[p.section]!.label,
      from: p.from,
      to: p.to,
      isFirst: i === 0,
    }));
}

/** Steps of a chunk: the first one has nothing to be joined to. */
export const stepsOf = (chunk: Chunk): Step[] => STEPS.filter((s) => s.id !== 'join' || !chunk.isFirst);

/** Slowest tempo that a ladder begins with, in quarter notes per minute, unless the goal itself is slower. */
export const SLOWEST = 30;

/** A ladder of tempi: slow steps at the start, the goal at the end and never above it; rounded to a metronome's marks. */
export function stepTempo(step: Step, goal: number): number {
  const tempo = goal * step.share;
  return tempo >= goal ? goal : Math.min(goal, Math.max(SLOWEST, Math.round(tempo / 2) * 2));
}

/** What was reached in each measure, by index: the last word on each step there. */
export interface Learned {
  readonly byMeasure: readonly ReadonlyMap<StepId, ProgressEvent>[];
  /** Steps reached in measures that this version does not have. */
  readonly elsewhere: readonly ProgressEvent[];
}

/** Reads the events of an assignment, in any order, into the measures of a version. */
export function learnedIn(measures: Ids, events: readonly ProgressEvent[]): Learned {
  const places = new Map(measures.map((m, i) => [m.id, i]));
  const byMeasure = measures.map(() => new Map<StepId, ProgressEvent>());
  const elsewhere = new Map<string, ProgressEvent>();
  for (const event of [...events].sort((a, b) => a.at.localeCompare(b.at))) {
    const [first = '', last = first] = event.chunk.split('..');
    const [from, to] = [places.get(first), places.get(last)];
    if (from === undefined || to === undefined) elsewhere.set(`${event.chunk} ${event.step}`, event);
    else for (let i = from; i <= to; i++) byMeasure[i]!.set(event.step, event);
  }
  return {
    byMeasure: byMeasure.map((steps) => new Map([...steps].filter(([, event]) => !event.undone))),
    elsewhere: [...elsewhere.values()].filter((event) => !event.undone),
  };
}

/** A step of a chunk as it stands. */
export interface StepState {
  /** Set where it is done in every measure of the chunk: the slowest tempo of them, and when the last was reached. */
  readonly done: { readonly tempo: number | null; readonly at: string } | null;
  /** Measures of the chunk in which it is done. */
  readonly measures: number;
}

export function stepState({ byMeasure }: Learned, chunk: Chunk, step: StepId): StepState {
  const events = byMeasure.slice(chunk.from, chunk.to + 1).flatMap((steps) => steps.get(step) ?? []);
  if (events.length <= chunk.to - chunk.from) return { done: null, measures: events.length };
  const tempi = events.flatMap((e) => e.tempo ?? []);
  return {
    done: {
      tempo: tempi.length > 0 ? Math.min(...tempi) : null,
      at: events
        .map((e) => e.at)
        .sort()
        .at(-1)!,
    },
    measures: events.length,
  };
}

const doneIn = (learned: Learned, chunk: Chunk): StepId[] =>
  stepsOf(chunk)
    .map((s) => s.id)
    .filter((id) => stepState(learned, chunk, id).done);

export interface NextStep {
  readonly chunk: Chunk;
  readonly step: Step;
}

/** A chunk is brought as far as both hands slowly before the next one is opened; polishing comes afterwards. */
const LEARNING = new Set<StepId>(['hear', 'right-counting', 'right', 'left', 'both', 'join']);

/** The next thing to practise, front to back: the first open step of the first chunk that has one. */
export function nextStep(chunks: readonly Chunk[], learned: Learned): NextStep | undefined {
  const passed = chunks.map((chunk) => passedBy(doneIn(learned, chunk)));
  for (const wanted of [(s: Step) => LEARNING.has(s.id), () => true])
    for (const [i, chunk] of chunks.entries()) {
      const step = stepsOf(chunk).find((s) => wanted(s) && !passed[i]!.has(s.id));
      if (step) return { chunk, step };
    }
  return undefined;
}

/** How far a measure is: none, one hand (counting aloud or not), both, or at the goal tempo. */
export type MeasureState = 'open' | 'right' | 'left' | 'both' | 'goal';

/** State of every measure by index; measures of a repeated section share the state of where they stand first. */
export function measureStates(form: Pick<Form, 'firstSeen'>, { byMeasure }: Learned): MeasureState[] {
  const states = byMeasure.map((steps): MeasureState => {
    const right = steps.has('right') || steps.has('right-counting');
    if (steps.has('goal') || steps.has('memory')) return 'goal';
    if (steps.has('both') || steps.has('faster') || steps.has('join')) return 'both';
    if (right && steps.has('left')) return 'both';
    return right ? 'right' : steps.has('left') ? 'left' : 'open';
  });
  return states.map((state, i) => (state === 'open' ? (states[form.firstSeen[i]!] ?? state) : state));
}
