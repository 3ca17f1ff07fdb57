/**
 * The house's hand as a studio keeps it: what was learned, what the teacher has made of it, and the examples that it is learned from.
 */
import { z } from 'zod';
import type { SoundingNote } from '../score/query';
import { touchAt } from './cost';
import type { FingeredHand } from './fingerHand';
import type { Finger } from './grips';
import type { FingerExample } from './learnTaste';
import { habitsOf, isPlain, NO_TASTE, tasteSchema, type Habit, type Taste } from './taste';

export const houseHandSchema = z.object({
  learned: tasteSchema,
  /** Decisions that it was learned from. */
  decisions: z.number().int().min(0),
  /** How much of a habit holds, by its text's key: 1 as learned, 0 not at all. */
  shares: z.record(z.string().max(40), z.number().min(0).max(1)),
  /** Whether new versions have it. */
  isOn: z.boolean(),
});

export type HouseHand = z.infer<typeof houseHandSchema>;

export const NO_HOUSE_HAND: HouseHand = { learned: NO_TASTE, decisions: 0, shares: {}, isOn: true };

/** Decisions below which nothing is concluded: a few fingers are no habit. */
export const FEWEST_DECISIONS = 10;

/** What a habit is kept by: "rule weak", "finger 3 black". */
export const habitKey = ({ about }: Habit): string =>
  'rule' in about ? `rule ${about.rule}` : `finger ${about.finger} ${about.isBlack ? 'black' : 'white'}`;

/** What new versions have: what was learned, as far as the teacher lets it hold; null where that is nothing. */
export function tasteOfHouse({ learned, decisions, shares, isOn }: HouseHand): Taste | null {
  if (!isOn || decisions < FEWEST_DECISIONS) return null;
  const taste = habitsOf(learned).reduce((so, habit): Taste => {
    const share = shares[habitKey(habit)] ?? 1;
    if (share === 1) return so;
    const { about } = habit;
    if ('rule' in about) {
      const factor = so.factors[about.rule] ?? 1;
      return { ...so, factors: { ...so.factors, [about.rule]: 1 + (factor - 1) * share } };
    }
    const place = touchAt(about.finger, about.isBlack);
    return { ...so, touch: so.touch.map((cost, i) => (i === place ? cost * share : cost)) };
  }, learned);
  return isPlain(taste) ? null : taste;
}

/** An example as it is stored: sets and maps as lists. */
export interface StoredExample {
  readonly notes: readonly SoundingNote[];
  readonly hand: 'right' | 'left';
  readonly reach: number;
  readonly steadiness: number;
  readonly beat: number;
  readonly tempo: number;
  readonly resets: readonly number[];
  readonly locks: readonly (readonly [string, Finger])[];
  readonly note: string;
  readonly finger: Finger;
}

/** Strokes before and after a decided finger that say why. */
const AROUND = 16;

/** The decided fingers of a hand as examples, `decided` in the order in which they were made. */
export function examplesOf(
  { notes, settings }: FingeredHand,
  decided: readonly (readonly [string, Finger])[],
): StoredExample[] {
  const placeOf = new Map(notes.map((n, i) => [n.id, i]));
  return decided.flatMap(([note, finger], k): StoredExample[] => {
    const at = placeOf.get(note);
    if (at === undefined) return [];
    const around = notes.slice(Math.max(0, at - AROUND), at + AROUND + 1);
    const ids = new Set(around.map((n) => n.id));
    return [
      {
        notes: around,
        hand: settings.hand,
        reach: settings.reach,
        steadiness: settings.steadiness,
        beat: settings.beat,
        tempo: settings.tempo ?? 0,
        resets: [...settings.resets].filter((t) => around[0]!.onset <= t && t <= around.at(-1)!.onset),
        locks: decided.slice(0, k).filter(([id]) => ids.has(id)),
        note,
        finger,
      },
    ];
  });
}

/** The example as the learner reads it. */
export const exampleOf = ({
  notes,
  note,
  finger,
  resets,
  locks,
  ...settings
}: StoredExample): FingerExample => ({
  notes,
  note,
  finger,
  settings: { ...settings, resets: new Set(resets), locks: new Map(locks) },
});
