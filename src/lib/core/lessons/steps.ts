/** Ways of practising a chunk, as a table: what a step is called, which hand plays, whether it is counted aloud, and what it is worth. */

export type StepHand = 'right' | 'left' | 'both';

/** How the tempi of a step follow from the goal: none, the first slow one, a joining one, all the rungs up to the goal, or the goal. */
export type StepTempi = 'none' | 'slow' | 'joining' | 'ladder' | 'goal';

interface StepFacts {
  readonly id: string;
  readonly says: string;
  /** null where nothing is played. */
  readonly hand: StepHand | null;
  /** Counted aloud. */
  readonly counting: boolean;
  readonly tempi: StepTempi;
  /** What it takes of a measure of middling difficulty, in minutes of practice; for a ladder, each rung. */
  readonly minutes: number;
}

/** In the order in which a teacher takes them. */
export const STEPS = [
  { id: 'hear', says: 'Listen', hand: null, counting: false, tempi: 'none', minutes: 0.5 },
  {
    id: 'right-counting',
    says: 'Right hand, counting aloud',
    hand: 'right',
    counting: true,
    tempi: 'slow',
    minutes: 3,
  },
  { id: 'right', says: 'Right hand', hand: 'right', counting: false, tempi: 'slow', minutes: 2 },
  { id: 'left', says: 'Left hand', hand: 'left', counting: false, tempi: 'slow', minutes: 4 },
  {
    id: 'both-counting',
    says: 'Hands together, counting aloud',
    hand: 'both',
    counting: true,
    tempi: 'slow',
    minutes: 6,
  },
  { id: 'both', says: 'Hands together, slowly', hand: 'both', counting: false, tempi: 'slow', minutes: 6 },
  {
    id: 'join',
    says: 'Connect it to the chunk before',
    hand: 'both',
    counting: false,
    tempi: 'joining',
    minutes: 3,
  },
  {
    id: 'ladder',
    says: 'Build up to goal tempo',
    hand: 'both',
    counting: false,
    tempi: 'ladder',
    minutes: 2,
  },
  { id: 'memory', says: 'From memory', hand: 'both', counting: false, tempi: 'goal', minutes: 4 },
] as const satisfies readonly StepFacts[];

export type StepId = (typeof STEPS)[number]['id'];

/** Playing again what was learned; it belongs to no plan. */
export const REVIEW = 'review';

/** What a step of the teacher's own is worth, in minutes for a measure. */
export const OWN_MINUTES = 2;

/** The step of the table; undefined for one of the teacher's own. */
export const stepFacts = (id: string): StepFacts | undefined => STEPS.find((s) => s.id === id);

const BUILT_IN: ReadonlySet<string> = new Set([...STEPS.map((s) => s.says), 'Review']);

/** A step's name in the middle of a sentence: a built-in one begins small, one of the teacher's own stays as she wrote it. */
export const stepInSentence = (says: string): string =>
  BUILT_IN.has(says) ? says.charAt(0).toLowerCase() + says.slice(1) : says;

/** With which hand a step is played, and whether it is counted: as the table has it; of a step of the teacher's own as she says. */
export function playedBy(
  step: string,
  own: { readonly hand?: StepHand | null; readonly counting?: boolean } = {},
): { readonly hand: StepHand | null; readonly counting: boolean } {
  const facts = stepFacts(step);
  if (facts) return { hand: facts.hand, counting: facts.counting };
  return { hand: step === REVIEW ? 'both' : (own.hand ?? null), counting: own.counting ?? false };
}

/** Steps that are passed once another is done: who plays with both hands has each hand, and has heard it. */
const COVERS: Readonly<Partial<Record<StepId, readonly StepId[]>>> = {
  'right-counting': ['hear'],
  right: ['hear', 'right-counting'],
  left: ['hear'],
  'both-counting': ['hear', 'right-counting', 'right', 'left'],
  both: ['hear', 'right-counting', 'right', 'left', 'both-counting'],
  join: ['hear', 'right-counting', 'right', 'left', 'both-counting', 'both'],
  ladder: ['hear', 'right-counting', 'right', 'left', 'both-counting', 'both'],
};

/** Steps that count as passed when these are done, themselves included. */
export const passedBy = (done: readonly string[]): Set<string> =>
  new Set(done.flatMap((step) => [step, ...(COVERS[step as StepId] ?? [])]));

/** A chunk is brought so far before the next one is opened; polishing comes afterwards. */
export const isLearning = (step: { readonly id: string; readonly tempi: StepTempi }): boolean =>
  step.tempi !== 'ladder' && step.tempi !== 'goal';
