/** Times of a performance onto a grid: beat by beat the one of sixteenths or triplets that fits what was played. */
import { TICKS_PER_QUARTER, type Ticks } from '../../../score/ticks';

interface Timed {
  readonly onset: Ticks;
  readonly duration: Ticks;
}

/** Parts of a quarter note. Finer grids must earn their place: they cost a little for every note. */
const GRIDS = [
  { parts: 2, cost: 0 },
  { parts: 4, cost: 0.02 },
  { parts: 3, cost: 0.045 },
  { parts: 8, cost: 0.06 },
  { parts: 6, cost: 0.08 },
] as const;

/** An onset this close to a beat, in quarters, belongs to it. */
const EARLY = 0.06;

/** Parts of a quarter within which strokes are together. */
const TOGETHER = 48;

/** Moves onsets and ends to the grid. Durations stay positive. */
export function quantise<T extends Timed>(notes: readonly T[]): T[] {
  const grids = gridByBeat(notes);
  const snap = (tick: Ticks): Ticks => {
    const beat = Math.floor(tick / TICKS_PER_QUARTER + EARLY);
    const step = TICKS_PER_QUARTER / (grids.get(beat) ?? 4);
    return Math.round(tick / step) * step;
  };
  return notes.map((note) => {
    const onset = snap(note.onset);
    const step = TICKS_PER_QUARTER / (grids.get(Math.floor(onset / TICKS_PER_QUARTER)) ?? 4);
    const end = snap(note.onset + note.duration);
    return { ...note, onset, duration: end > onset ? end - onset : step };
  });
}

function gridByBeat(notes: readonly Timed[]): Map<number, number> {
  const byBeat = new Map<number, number[]>();
  for (const { onset } of notes) {
    const quarters = onset / TICKS_PER_QUARTER;
    const beat = Math.floor(quarters + EARLY);
    byBeat.set(beat, [...(byBeat.get(beat) ?? []), quarters - beat]);
  }
  return new Map(
    [...byBeat].map(([beat, all]) => {
      // Several players, or the notes of a chord, that strike together say a place once.
      const places = [...new Map(all.map((place) => [Math.round(place * TOGETHER), place])).values()];
      const error = (parts: number): number =>
        places.reduce((sum, place) => sum + Math.abs(place - Math.round(place * parts) / parts), 0) /
        places.length;
      const best = GRIDS.reduce((a, b) => (error(b.parts) + b.cost < error(a.parts) + a.cost ? b : a));
      return [beat, best.parts];
    }),
  );
}
