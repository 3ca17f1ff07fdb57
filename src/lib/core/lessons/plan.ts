/**
 * A learner's plan for a version: which chunks, in which order, by which steps. It is proposed from the form, and the teacher's as
 * soon as she has changed it. A plan holds no progress: that is computed from the events over whatever plan there is.
 */
import { lineText } from '../plainText';
import { z } from 'zod';
import { follows, type Places } from '../score/places';
import { chunkId, edgeSchema, placesBetween } from './chunkId';
import { chunksOf, sectionAt, type ChunkForm } from './chunks';
import { OWN_MINUTES, STEPS, stepFacts, type StepHand, type StepId, type StepTempi } from './steps';
import { stepTempi } from './private/tempi';

export const METHOD_IDS = ['front to back', 'hardest first', 'both hands from the start'] as const;
export type MethodId = (typeof METHOD_IDS)[number];

interface Method {
  readonly id: MethodId;
  readonly says: string;
  readonly order: 'front' | 'hardest';
  readonly steps: readonly StepId[];
}

const HANDS_FIRST: readonly StepId[] = [
  'hear',
  'right-counting',
  'right',
  'left',
  'both',
  'join',
  'ladder',
  'memory',
];

/** The schools, each in a line. */
export const METHODS: readonly Method[] = [
  {
    id: 'front to back',
    says: 'From the first measure on: every chunk is connected to the ones before, and the student always plays from the beginning.',
    order: 'front',
    steps: HANDS_FIRST,
  },
  {
    id: 'hardest first',
    says: 'The hardest chunk first: by the time the piece is ready, it has had the most practice.',
    order: 'hardest',
    steps: HANDS_FIRST,
  },
  {
    id: 'both hands from the start',
    says: 'Hands together from the start: each chunk slowly and counted, for easy music and good readers.',
    order: 'front',
    steps: ['hear', 'both-counting', 'both', 'join', 'ladder', 'memory'],
  },
];

const methodById = (id: MethodId): Method => METHODS.find((m) => m.id === id)!;

const stepName = lineText().min(1, 'A step needs a name.').max(60, 'Keep the name under 60 letters.');

export const plannedStepSchema = z.object({
  /** Of the table of steps, or "own-…" for one of the teacher's own. */
  id: z.string().regex(/^[a-z0-9-]{1,40}$/i),
  /** What the teacher calls it; null as in the table. */
  name: stepName.nullable(),
  /** Of a step of the teacher's own. */
  hand: z.enum(['right', 'left', 'both']).nullable().optional(),
});
export type PlannedStep = z.infer<typeof plannedStepSchema>;

export const plannedChunkSchema = z.object({
  /** Measures by their ids in the source, or a beat of them. */
  from: edgeSchema,
  to: edgeSchema,
  name: lineText().max(60, 'Keep the name under 60 letters.').nullable(),
  steps: z.array(plannedStepSchema).max(30, 'Keep the plan under 30 steps.'),
});
export type PlannedChunk = z.infer<typeof plannedChunkSchema>;

export const planSchema = z.object({
  method: z.enum(METHOD_IDS),
  chunks: z.array(plannedChunkSchema).max(400, 'Keep the plan under 400 chunks.'),
});
export type Plan = z.infer<typeof planSchema>;

/** What plans need to know of a version: its measures, form, difficulty (0 to 100) and goal (quarter notes per minute). */
export interface ToLearn {
  readonly ids: readonly string[];
  /** The first and the last beat of each measure, as they are counted. */
  readonly beats: readonly (readonly [first: number, last: number])[];
  readonly form: ChunkForm;
  readonly difficulty: readonly number[];
}

const mean = (numbers: readonly number[]): number =>
  numbers.length === 0 ? 0 : numbers.reduce((a, b) => a + b, 0) / numbers.length;

const difficultyIn = ({ difficulty }: Pick<ToLearn, 'difficulty'>, { from, to }: Places): number =>
  mean(difficulty.slice(from, to + 1));

const asIn = (step: StepId): PlannedStep => ({ id: step, name: null });

/** The plan that a method proposes. `steps` where the teacher has a template of her own. */
export function proposedPlan(music: ToLearn, method: MethodId, steps?: readonly PlannedStep[]): Plan {
  const { order, steps: usual } = methodById(method);
  const places = chunksOf(music.form);
  const ordered =
    order === 'front'
      ? places
      : [...places].sort((a, b) => difficultyIn(music, b) - difficultyIn(music, a) || a.from - b.from);
  const own = steps ?? usual.map(asIn);
  const first = Math.min(...places.map((p) => p.from));
  return {
    method,
    chunks: ordered.map(({ from, to }) => ({
      from: music.ids[from]!,
      to: music.ids[to]!,
      name: null,
      // The beginning has nothing to be joined to.
      steps: own.filter((s) => s.id !== 'join' || from !== first),
    })),
  };
}

/** A step of a chunk, with its tempi. */
export interface Step {
  readonly id: string;
  readonly says: string;
  readonly hand: StepHand | null;
  readonly counting: boolean;
  readonly tempi: StepTempi;
  /** Quarter notes per minute, the slowest first; none where nothing is played. */
  readonly ladder: readonly number[];
  /** What it takes, in minutes of practice at a usual pace. */
  readonly minutes: number;
}

/** A chunk of a plan, found in a version. */
export interface Chunk extends Places {
  /** Its ends by measure, or beat: "m0..m3", "m0:4..m3:2". */
  readonly id: string;
  readonly name: string | null;
  readonly section: string;
  readonly difficulty: number;
  readonly steps: readonly Step[];
}

/** Difficulty of which a measure takes the minutes that the table says. */
const MIDDLING = 25;

function stepOf(planned: PlannedStep, measures: number, difficulty: number, goal: number): Step {
  const facts = stepFacts(planned.id);
  const tempi = facts?.tempi ?? (planned.hand ? 'slow' : 'none');
  const rungs = stepTempi(tempi, difficulty, goal);
  const weight = 0.4 + 0.6 * (difficulty / MIDDLING);
  return {
    id: planned.id,
    says: planned.name ?? facts?.says ?? 'A step',
    hand: facts ? facts.hand : (planned.hand ?? null),
    counting: facts?.counting ?? false,
    tempi,
    ladder: rungs,
    minutes: (facts?.minutes ?? OWN_MINUTES) * measures * weight * (tempi === 'ladder' ? rungs.length : 1),
  };
}

/** The chunks of a plan in a version, in the plan's order. One whose measures the version does not have is left out. */
export function chunksIn(plan: Plan, music: ToLearn, goal: number): Chunk[] {
  return plan.chunks.flatMap(({ from: first, to: last, name, steps }) => {
    const places = placesBetween(music.ids, first, last);
    if (!places) return [];
    const { from, to } = places;
    const difficulty = difficultyIn(music, places);
    return [
      {
        id: chunkId(first, last),
        name,
        section: sectionAt(music.form, from),
        ...places,
        difficulty,
        steps: steps.map((s) => stepOf(s, to - from + 1, difficulty, goal)),
      },
    ];
  });
}

/**
 * What is played in a step of a chunk: to connect it, the chunk that ends where it begins comes first, wherever in a measure that is;
 * else the chunk alone.
 */
export function playedIn(
  step: string | undefined,
  chunk: Places,
  chunks: readonly Places[],
): { readonly places: Places; readonly before: Places | undefined } {
  const before = step === 'join' ? chunks.find((c) => follows(c, chunk)) : undefined;
  const { from, to, fromBeat, toBeat } = chunk;
  return before
    ? { places: { from: before.from, to, fromBeat: before.fromBeat, toBeat }, before }
    : { places: { from, to, fromBeat, toBeat }, before };
}

/** The steps that most chunks of a plan have, as a template for other pieces. */
export function templateOf({ chunks }: Plan): PlannedStep[] {
  // The chunk with the most steps: others miss what has no place in them.
  return (
    [...chunks].sort((a, b) => b.steps.length - a.steps.length)[0]?.steps ?? STEPS.map((s) => asIn(s.id))
  );
}
