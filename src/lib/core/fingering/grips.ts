/** The ways in which the fingers of a hand can lie on what it holds. */
import { idsOf, type Event, type HeldKey } from './private/event';

export type Finger = 1 | 2 | 3 | 4 | 5;

export const FINGERS: readonly Finger[] = [1, 2, 3, 4, 5];

/** A finger for each key of an event, in the same order. */
export type Grip = readonly Finger[];

/** Rising grips by number of keys: the usual case, made once. */
const RISING: readonly (readonly Grip[])[] = [0, 1, 2, 3, 4, 5].map((size) => {
  let grips: Finger[][] = [[]];
  for (let i = 0; i < size; i++)
    grips = grips.flatMap((g) => FINGERS.filter((f) => f > (g.at(-1) ?? 0)).map((f) => [...g, f]));
  return grips;
});

/**
 * The grips an event allows: fingers rise outwards, locked keys keep their finger. Where locks or numbers leave none,
 * the order is given up, and in the end a finger may take two keys, so that there is always an answer.
 */
export function gripsFor(event: Event, locks: ReadonlyMap<string, Finger>): readonly Grip[] {
  const { keys } = event;
  const lockOf = (key: HeldKey): Finger | undefined =>
    idsOf(key)
      .map((id) => locks.get(id))
      .find((f) => f !== undefined);
  const isLocked = locks.size > 0 && keys.some((k) => lockOf(k) !== undefined);
  const rising = RISING[keys.length] ?? [];
  if (!isLocked && rising.length > 0) return rising;
  const locked = rising.filter((grip) => grip.every((f, i) => (lockOf(keys[i]!) ?? f) === f));
  if (locked.length > 0) return locked;
  const allowed = keys.map((k) => {
    const lock = lockOf(k);
    return lock ? [lock] : FINGERS;
  });
  const collect = (fits: (before: readonly Finger[], next: Finger) => boolean): Grip[] => {
    let partial: Finger[][] = [[]];
    for (const fingers of allowed)
      partial = partial.flatMap((p) => fingers.filter((f) => fits(p, f)).map((f) => [...p, f])).slice(0, 400);
    return partial;
  };
  const distinct = collect((before, next) => !before.includes(next));
  if (distinct.length > 0) return distinct;
  const shared = collect((before, next) => before.every((f) => f <= next)).filter((grip) =>
    sharesNearby(keys, grip),
  );
  if (shared.length > 0) return shared;
  return [turnedGrip(keys).map((finger, i) => lockOf(keys[i]!) ?? finger)];
}

/** Semitones between two keys that one finger strikes together. */
const UNDER_ONE_FINGER = 2;

const sharesNearby = (keys: readonly HeldKey[], grip: Grip): boolean =>
  grip.every(
    (finger, i) => i === 0 || finger !== grip[i - 1] || keys[i]!.out - keys[i - 1]!.out <= UNDER_ONE_FINGER,
  );

/** Most keys of one position of a hand that turns while it rolls. */
const MOST_IN_POSITION = 4;
/** Fingers of a position by its number of keys, thumb first; the last position has the little finger at its end. */
const IN_POSITION: readonly Grip[] = [[], [1], [1, 3], [1, 2, 4], [1, 2, 3, 4]];

/** Fingers for more keys than a hand has: it rolls them in positions, turning over the thumb as in an arpeggio. */
function turnedGrip({ length }: readonly HeldKey[]): Grip {
  const positions = Math.ceil(length / MOST_IN_POSITION);
  return Array.from({ length: positions }, (_, i): Grip => {
    const size = Math.floor((length + i) / positions);
    const fingers = IN_POSITION[size]!;
    return i === positions - 1 ? [...fingers.slice(0, -1), 5] : fingers;
  }).flat();
}
