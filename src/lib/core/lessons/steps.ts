/** Ways of practising a chunk, in the order a teacher takes them. */
export const STEPS = [
  { id: 'hear', says: 'Hear it', hand: null, counted: false, share: 1 },
  {
    id: 'right-counting',
    says: 'Right hand slowly, counting aloud',
    hand: 'right',
    counted: true,
    share: 0.6,
  },
  { id: 'right', says: 'Right hand without counting', hand: 'right', counted: false, share: 0.6 },
  { id: 'left', says: 'Left hand slowly', hand: 'left', counted: true, share: 0.6 },
  { id: 'both', says: 'Both hands slowly', hand: 'both', counted: true, share: 0.6 },
  { id: 'join', says: 'Join it to the chunk before', hand: 'both', counted: false, share: 0.7 },
  { id: 'faster', says: 'Both hands, faster', hand: 'both', counted: false, share: 0.85 },
  { id: 'goal', says: 'Both hands at the goal tempo', hand: 'both', counted: false, share: 1 },
  { id: 'memory', says: 'From memory', hand: 'both', counted: false, share: 1 },
] as const;

/** Steps that are passed once another is done: who plays with both hands has each hand, and has heard it. */
const COVERS: Readonly<Partial<Record<StepId, readonly StepId[]>>> = {
  'right-counting': ['hear'],
  right: ['hear', 'right-counting'],
  left: ['hear'],
  both: ['hear', 'right-counting', 'right', 'left'],
  join: ['hear', 'right-counting', 'right', 'left', 'both'],
  faster: ['hear', 'right-counting', 'right', 'left', 'both'],
  goal: ['hear', 'right-counting', 'right', 'left', 'both', 'faster'],
};

/** Steps that count as passed when these are done, themselves included. */
export const passedBy = (done: readonly StepId[]): Set<StepId> =>
  new Set(done.flatMap((step) => [step, ...(COVERS[step] ?? [])]));

export type StepId = (typeof STEPS)[number]['id'];
export type Step = (typeof STEPS)[number];

export const STEP_IDS = STEPS.map((s) => s.id) as [StepId, ...StepId[]];

export const stepById = (id: StepId): Step => STEPS.find((s) => s.id === id)!;
