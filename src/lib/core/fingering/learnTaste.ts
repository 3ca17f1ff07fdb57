/**
 * Learning a taste from decided fingers: an averaged structured perceptron over the costs. For each decision the phrase is fingered
 * with and without it; where the costs prefer another finger, they are turned a little towards the decision, within their bounds.
 */
import type { SoundingNote } from '../score/query';
import { RULES, touchAt } from './cost';
import { eventsOf, idsOf, type Event, type HeldKey } from './events';
import type { Finger, Grip } from './grips';
import { bestPath, costsOf, passageOf, total, type FingeringSettings, type Passage } from './solve';
import { FACTOR, HARD_RULES, NO_TASTE, TOUCH, type Taste } from './taste';

/** One finger that a teacher has decided, with the notes around it that say why. */
export interface FingerExample {
  readonly notes: readonly SoundingNote[];
  /** How the hand is to be fingered; `locks` are the decisions that were there before. */
  readonly settings: Omit<FingeringSettings, 'taste'>;
  readonly note: string;
  readonly finger: Finger;
}

/** How far one example turns a factor, and a finger's liking. */
const STEP = { factor: 0.06, touch: 0.12 } as const;
/** By how much the decided way is to be cheaper than the next. */
const MARGIN = 0.4;
/** How often the examples are gone through. */
const PASSES = 4;
/** No rule says more about one example than so much. */
const MOST = 4;
/** Share of what is learned that each pass gives back: what is not said again fades. */
const FADES = 0.02;

interface Weights {
  readonly factors: Float64Array;
  readonly touch: Float64Array;
}

const plain = (): Weights => ({
  factors: new Float64Array(RULES.length).fill(1),
  touch: new Float64Array(10),
});

/** The taste that the examples speak of, from what is usual. */
export function learnTaste(examples: readonly FingerExample[]): Taste {
  if (examples.length === 0) return NO_TASTE;
  const weights = plain();
  const sum = { factors: new Float64Array(RULES.length), touch: new Float64Array(10) };
  for (let pass = 0; pass < PASSES; pass++) {
    for (const example of examples) {
      turn(weights, example);
      weights.factors.forEach((f, i) => (sum.factors[i]! += f));
      weights.touch.forEach((t, i) => (sum.touch[i]! += t));
    }
    weights.factors.forEach((f, i) => (weights.factors[i] = 1 + (f - 1) * (1 - FADES)));
    weights.touch.forEach((t, i) => (weights.touch[i] = t * (1 - FADES)));
  }
  const count = PASSES * examples.length;
  return tasteOf({ factors: sum.factors.map((f) => f / count), touch: sum.touch.map((t) => t / count) });
}

const rounded = (n: number): number => Math.round(n * 1000) / 1000;

const tasteOf = ({ factors, touch }: Weights): Taste => ({
  factors: Object.fromEntries(
    RULES.flatMap((rule, i) => (Math.abs(factors[i]! - 1) < 0.005 ? [] : [[rule, rounded(factors[i]!)]])),
  ),
  touch: [...touch].map(rounded),
});

function turn(weights: Weights, { notes, settings, note, finger }: FingerExample): void {
  const taste = tasteOf(weights);
  const events = eventsOf(notes, settings);
  const isAsked = (key: HeldKey): boolean => key.struck && idsOf(key).includes(note);
  const at = events.findIndex((e) => e.keys.some(isAsked));
  if (at < 0) return;
  const passage = passageOf(events, { ...settings, taste });
  const place = events[at]!.keys.findIndex(isAsked);
  const decided = pathWith(passage, at, (g) => g[place] === finger);
  const other = pathWith(passage, at, (g) => g[place] !== finger);
  if (!decided || !other) return;
  const [own, others] = [costsOf(events, decided, passage.model), costsOf(events, other, passage.model)];
  if (total(others) - total(own) >= MARGIN) return;
  RULES.forEach((rule, i) => {
    if (rule === 'touch') return;
    // Costs as they were before taste: what the rule itself says of the two ways.
    const factor = weights.factors[i]!;
    const more = Math.max(-MOST, Math.min(MOST, (others[i]! - own[i]!) / factor));
    const least = HARD_RULES.has(rule) ? 1 : FACTOR.least;
    weights.factors[i] = Math.max(least, Math.min(FACTOR.most, factor * (1 + STEP.factor * more)));
  });
  countTouch(events, other, 1, weights.touch);
  countTouch(events, decided, -1, weights.touch);
}

function pathWith(
  { events, grips, model }: Pick<Passage, 'events' | 'grips' | 'model'>,
  at: number,
  allows: (grip: Grip) => boolean,
): Grip[] | undefined {
  const narrowed = grips.map((list, i) => (i === at ? list.filter(allows) : list));
  return narrowed[at]!.length > 0 ? bestPath(events, narrowed, model) : undefined;
}

/** Fingers that a path puts on white and black keys: dearer where the other way has them, cheaper where the decided one has. */
function countTouch(
  events: readonly Event[],
  path: readonly Grip[],
  sign: 1 | -1,
  touch: Float64Array,
): void {
  events.forEach((event, i) =>
    event.keys.forEach((key, k) => {
      if (!key.struck) return;
      const place = touchAt(path[i]![k]!, key.isBlack);
      touch[place] = Math.max(
        -TOUCH,
        Math.min(TOUCH, touch[place]! + (sign * STEP.touch) / event.keys.length),
      );
    }),
  );
}
