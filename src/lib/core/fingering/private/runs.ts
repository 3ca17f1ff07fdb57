/** Runs: stretches of single notes that all go one way, by step or by skip, and the fingers of their ends. */
import type { Convention } from './convention';
import type { Event } from './event';
import type { Finger } from '../grips';

/** A stretch of single notes that all go one way. */
export interface Run {
  readonly events: readonly Event[];
  /** 1 outwards from the thumb, −1 towards it. */
  readonly direction: 1 | -1;
}

export const outOf = (event: Event): number => event.keys[0]!.out;
export const midiOf = (event: Event): number => event.keys[0]!.midi;
export const pitchClassOf = (midi: number): number => midi % 12;

/** The runs of a line of single notes, in order; neighbours share the note on which the line turns. */
export function runsOf(line: readonly Event[]): Run[] {
  const runs: Run[] = [];
  let start = 0;
  for (let i = 1; i <= line.length; i++) {
    const before = i > 1 ? Math.sign(outOf(line[i - 1]!) - outOf(line[i - 2]!)) : 0;
    const here = i < line.length ? Math.sign(outOf(line[i]!) - outOf(line[i - 1]!)) : 0;
    if (i - 1 > start && here !== before) {
      if (before !== 0) runs.push({ events: line.slice(start, i), direction: before as 1 | -1 });
      start = i - 1;
    } else if (here === 0) start = i;
  }
  return runs.flatMap(cutAtChangesOfStep);
}

/** A run that goes by step and then by skip, or the other way, is two. */
function cutAtChangesOfStep(run: Run): Run[] {
  const parts: Run[] = [];
  const isSkip = (i: number): boolean => {
    const [a, b] = [midiOf(run.events[i]!), midiOf(run.events[i + 1]!)];
    const distance = Math.abs(b - a);
    // An augmented second is a step between white and black neighbours of a harmonic minor scale: decided by its neighbours.
    return distance > 3 || (distance === 3 && neighbours(run, i).some((d) => d > 2));
  };
  let start = 0;
  for (let i = 1; i < run.events.length; i++) {
    const ends = i === run.events.length - 1 || isSkip(i) !== isSkip(i - 1);
    if (!ends) continue;
    parts.push({ ...run, events: run.events.slice(start, i + 1) });
    start = i;
  }
  return parts;
}

const neighbours = ({ events }: Run, i: number): number[] =>
  [i - 1, i + 1]
    .filter((k) => k >= 0 && k < events.length - 1)
    .map((k) => Math.abs(midiOf(events[k + 1]!) - midiOf(events[k]!)));

export const fingerAt = (digits: string, index: number): Finger => Number(digits[index]) as Finger;

/**
 * Fingers inside a run, fitted at its ends: at the outer end the thumb gives way to the next finger, at the inner end a
 * finger that would only lead in may be the second.
 */
export function fitEnds(
  run: Run,
  inside: readonly Finger[],
  weight: number,
  of: string,
  ends: {
    readonly outer: (next: Finger) => readonly Finger[];
    readonly inner: (own: Finger) => readonly Finger[];
  },
): Convention[] {
  const outer = run.direction === 1 ? inside.length - 1 : 0;
  const inner = inside.length - 1 - outer;
  const nextToOuter = inside[run.direction === 1 ? outer - 1 : outer + 1]!;
  return inside.map((finger, i): Convention => {
    const fingers =
      i === outer && finger === 1 ? ends.outer(nextToOuter) : i === inner ? ends.inner(finger) : [finger];
    return { fingers, weight, of };
  });
}
