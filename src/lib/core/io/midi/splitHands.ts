/**
 * Which hand plays what, where tracks do not say: at each onset the notes are cut into a lower and an upper group, and
 * the best path over the piece keeps each hand within its reach and moving little.
 */
import { byOnset } from '../../score/query';
import type { Ticks } from '../../score/ticks';

export interface Struck {
  readonly onset: Ticks;
  readonly duration: Ticks;
  readonly midi: number;
}

/** Semitones that a hand holds at once without strain. */
const OCTAVE_HAND = 12;
/** Where the hands usually meet. */
const MIDDLE_C = 60;

interface Cut {
  readonly left: readonly number[];
  readonly right: readonly number[];
  readonly leftAt: number;
  readonly rightAt: number;
}

/** The staff of every note, 1 right or 2 left, in the order of `notes`. */
export function splitHands(notes: readonly Struck[]): (1 | 2)[] {
  const groups = byOnset(notes.map((note, index) => ({ ...note, index })));
  let states: { cost: number; cut: Cut; back: number }[][] = [];
  for (const group of groups) {
    const rising = [...group.notes].sort((a, b) => a.midi - b.midi);
    const before = states.at(-1) ?? [
      { cost: 0, cut: { left: [], right: [], leftAt: 48, rightAt: 67 }, back: -1 },
    ];
    const column = Array.from({ length: rising.length + 1 }, (_, split) => {
      const left = rising.slice(0, split).map((n) => n.midi);
      const right = rising.slice(split).map((n) => n.midi);
      const own = handCost(left, 'left') + handCost(right, 'right');
      let best = { cost: Infinity, cut: before[0]!.cut, back: 0 };
      before.forEach((state, back) => {
        const leftAt = left.length ? mean(left) : state.cut.leftAt;
        const rightAt = right.length ? mean(right) : state.cut.rightAt;
        const moved = Math.abs(leftAt - state.cut.leftAt) + Math.abs(rightAt - state.cut.rightAt);
        const crossed = Math.max(0, leftAt - rightAt + 3);
        const cost = state.cost + own + 0.12 * moved + 0.8 * crossed;
        if (cost < best.cost) best = { cost, cut: { left, right, leftAt, rightAt }, back };
      });
      return best;
    });
    states = [...states, column];
  }
  const staff = new Array<1 | 2>(notes.length).fill(1);
  let at = states.at(-1)?.reduce((best, s, i, all) => (s.cost < all[best]!.cost ? i : best), 0) ?? 0;
  for (let i = groups.length - 1; i >= 0; i--) {
    const rising = [...groups[i]!.notes].sort((a, b) => a.midi - b.midi);
    rising.forEach((note, place) => (staff[note.index] = place < at ? 2 : 1));
    at = states[i]![at]!.back;
  }
  return staff;
}

const mean = (values: readonly number[]): number => values.reduce((a, b) => a + b, 0) / values.length;

function handCost(midi: readonly number[], hand: 'left' | 'right'): number {
  if (midi.length === 0) return 0.3;
  const width = midi.at(-1)! - midi[0]!;
  const wrongSide = midi.reduce(
    (sum, m) => sum + Math.max(0, hand === 'left' ? m - MIDDLE_C : MIDDLE_C - m),
    0,
  );
  return 0.06 * wrongSide + 3 * Math.max(0, width - OCTAVE_HAND) + 4 * Math.max(0, midi.length - 5);
}
