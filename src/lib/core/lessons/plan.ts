/** From a form to what is practised: chunks of a few measures, the steps of each, and which step is next. */
import type { Form } from '../analysis/form';
import type { StepId } from './steps';
import { passedBy, STEPS, type Step } from './steps';

export interface Chunk {
  /** Stable name of the chunk: "0-4", its measures by index. */
  readonly id: string;
  readonly section: string;
  readonly from: number;
  readonly to: number;
  readonly isFirst: boolean;
}

/** What was reached in one step of one chunk. */
export interface ProgressEvent {
  readonly chunk: string;
  readonly step: StepId;
  /** Tempo reached, in quarter notes per minute; null where none was measured. */
  readonly tempo: number | null;
  /** ISO date and time. */
  readonly at: string;
  /** A step can be taken back; the record keeps both. */
  readonly undone: boolean;
}

/** The chunks to learn: phrases with at least one new measure. What comes again is learned where it first stands. */
export function chunksOf(form: Form): Chunk[] {
  return form.phrases
    .filter((p) => form.firstSeen.slice(p.from, p.to + 1).some((first, i) => first === p.from + i))
    .map((p, i) => ({
      id: `${p.from}-${p.to}`,
      section: form.sections[p.section]!.label,
      from: p.from,
      to: p.to,
      isFirst: i === 0,
    }));
}

/** Steps of a chunk: the first one has nothing to be joined to. */
export const stepsOf = (chunk: Chunk): Step[] => STEPS.filter((s) => s.id !== 'join' || !chunk.isFirst);

/** A ladder of tempi: slow steps at the start, the goal at the end; rounded to a metronome's marks. */
export function stepTempo(step: Step, goal: number): number {
  const tempo = goal * step.share;
  return tempo >= goal ? goal : Math.max(30, Math.round(tempo / 2) * 2);
}

/** The last word on each step of each chunk. */
export function doneSteps(events: readonly ProgressEvent[]): Map<string, ProgressEvent> {
  const latest = new Map<string, ProgressEvent>();
  for (const event of [...events].sort((a, b) => a.at.localeCompare(b.at)))
    latest.set(`${event.chunk}:${event.step}`, event);
  return new Map([...latest].filter(([, event]) => !event.undone));
}

export const isDone = (done: ReadonlyMap<string, ProgressEvent>, chunk: Chunk, step: StepId): boolean =>
  done.has(`${chunk.id}:${step}`);

export interface NextStep {
  readonly chunk: Chunk;
  readonly step: Step;
}

/** The next thing to practise, front to back: the first open step of the first chunk that has one. */
export function nextStep(chunks: readonly Chunk[], events: readonly ProgressEvent[]): NextStep | undefined {
  const done = doneSteps(events);
  // A chunk is brought as far as both hands slowly before the next one is opened; polishing comes afterwards.
  const learning = new Set<StepId>(['hear', 'right-counting', 'right', 'left', 'both', 'join']);
  for (const wanted of [(s: Step) => learning.has(s.id), () => true])
    for (const chunk of chunks) {
      const steps = stepsOf(chunk);
      const passed = passedBy(steps.filter((s) => isDone(done, chunk, s.id)).map((s) => s.id));
      const step = steps.find((s) => wanted(s) && !passed.has(s.id));
      if (step) return { chunk, step };
    }
  return undefined;
}

/** How far a measure is: none, one hand, both, or at the goal tempo. */
export type MeasureState = 'open' | 'right' | 'left' | 'both' | 'goal';

/** State of every measure by index; measures of a repeated section share the state of where they stand first. */
export function measureStates(
  form: Form,
  chunks: readonly Chunk[],
  events: readonly ProgressEvent[],
): MeasureState[] {
  const done = doneSteps(events);
  const states = form.firstSeen.map((): MeasureState => 'open');
  for (const chunk of chunks) {
    const has = (step: StepId): boolean => isDone(done, chunk, step);
    const right = has('right') || has('right-counting');
    const state: MeasureState =
      has('goal') || has('memory')
        ? 'goal'
        : has('both') || has('faster') || has('join')
          ? 'both'
          : right && has('left')
            ? 'both'
            : right
              ? 'right'
              : has('left')
                ? 'left'
                : 'open';
    for (let i = chunk.from; i <= chunk.to; i++) states[i] = state;
  }
  return states.map((state, i) => (state === 'open' ? (states[form.firstSeen[i]!] ?? state) : state));
}
