/**
 * Which hand plays what, where tracks do not say: at each onset the notes are cut into a lower and an upper group, and
 * the best path over the piece keeps each hand within its reach and moving little.
 */
import { byOnset } from '../score/query';
import type { Ticks } from '../score/ticks';

interface Struck {
  readonly onset: Ticks;
  readonly duration: Ticks;
  readonly midi: number;
}

/** Semitones that a hand holds at once without strain. */
const OCTAVE_HAND = 12;
/** Where the hands usually meet. */
const MIDDLE_C = 60;

interface HeldKey {
  readonly midi: number;
  readonly until: Ticks;
}

interface Cut {
  /** What each hand holds, struck now or before. */
  readonly left: readonly HeldKey[];
  readonly right: readonly HeldKey[];
  readonly leftAt: number;
  readonly rightAt: number;
}

interface State {
  readonly cost: number;
  readonly cut: Cut;
  readonly back: number;
}

const BEGINNING: State = { cost: 0, cut: { left: [], right: [], leftAt: 48, rightAt: 67 }, back: -1 };

/** Ticks by which a key may be let go late without being held on purpose. */
const LATE = 600;

/** The staff of every note, 1 right or 2 left, in the order of `notes`. */
export function splitHands(notes: readonly Struck[]): (1 | 2)[] {
  const groups = byOnset(notes.map((note, index) => ({ ...note, index }))).map((group) => ({
    onset: group.onset,
    rising: [...group.notes].sort((a, b) => a.midi - b.midi),
  }));
  let states: readonly State[] = [BEGINNING];
  /** For each onset, where each of its states came from: of the states themselves only the last are wanted. */
  const backs: number[][] = [];
  for (const { onset, rising } of groups) {
    const keys = rising.map((n): HeldKey => ({ midi: n.midi, until: n.onset + n.duration }));
    const before = states;
    states = Array.from({ length: keys.length + 1 }, (_, split) => {
      const [left, right] = [keys.slice(0, split), keys.slice(split)];
      return before
        .map((state, back) => follow(state, back, left, right, onset))
        .reduce((best, next) => (next.cost < best.cost ? next : best));
    });
    backs.push(states.map((s) => s.back));
  }
  const staff = new Array<1 | 2>(notes.length).fill(1);
  let at = states.reduce((best, s, i, all) => (s.cost < all[best]!.cost ? i : best), 0);
  for (let i = groups.length - 1; i >= 0; i--) {
    groups[i]!.rising.forEach((note, place) => (staff[note.index] = place < at ? 2 : 1));
    at = backs[i]![at]!;
  }
  return staff;
}

/** The state after one more onset, at which the hands strike `left` and `right`. */
function follow(
  { cost, cut }: State,
  back: number,
  left: readonly HeldKey[],
  right: readonly HeldKey[],
  onset: Ticks,
): State {
  const stillHeld = (key: HeldKey): boolean => key.until > onset + LATE;
  const inLeft = [...cut.left.filter(stillHeld), ...left];
  const inRight = [...cut.right.filter(stillHeld), ...right];
  const leftAt = left.length ? mean(left.map((k) => k.midi)) : cut.leftAt;
  const rightAt = right.length ? mean(right.map((k) => k.midi)) : cut.rightAt;
  const own =
    handCost(left.length ? inLeft : [], 'left') +
    handCost(right.length ? inRight : [], 'right') +
    idleCost(left, inLeft, right) +
    idleCost(right, inRight, left);
  const moved = leapCost(leftAt - cut.leftAt) + leapCost(rightAt - cut.rightAt);
  const crossed = Math.max(0, leftAt - rightAt + 3);
  return {
    cost: cost + own + moved + 0.8 * crossed,
    cut: { left: inLeft, right: inRight, leftAt, rightAt },
    back,
  };
}

const mean = (values: readonly number[]): number => values.reduce((a, b) => a + b, 0) / values.length;

/** Moving costs by the way, but a hand that leaps has time to: a waltz bass is one hand's, low note and chords. */
const leapCost = (semitones: number): number => Math.min(0.9, 0.12 * Math.abs(semitones));

/** A hand that rests while the other plays several notes at once could have taken some of them. */
const idleCost = (
  struck: readonly HeldKey[],
  held: readonly HeldKey[],
  others: readonly HeldKey[],
): number => (struck.length > 0 ? 0 : (held.length > 0 ? 0 : 0.3) + (others.length > 1 ? 0.15 : 0));

/** Semitones that lie under a still hand. */
const STILL_HAND = 5;

function handCost(keys: readonly HeldKey[], hand: 'left' | 'right'): number {
  if (keys.length === 0) return 0;
  const midi = keys.map((k) => k.midi);
  const width = Math.max(...midi) - Math.min(...midi);
  const wrongSide = midi.reduce(
    (sum, m) => sum + Math.max(0, hand === 'left' ? m - MIDDLE_C : MIDDLE_C - m),
    0,
  );
  return (
    0.06 * wrongSide +
    0.15 * Math.max(0, width - STILL_HAND) +
    3 * Math.max(0, width - OCTAVE_HAND) +
    4 * Math.max(0, midi.length - 5)
  );
}
