/** What one hand holds at each onset, and the ways its fingers can lie on it. */
import { byOnset, type SoundingNote } from '../score/query';
import type { Ticks } from '../score/ticks';

export type Hand = 'right' | 'left';
export type Finger = 1 | 2 | 3 | 4 | 5;

export const FINGERS: readonly Finger[] = [1, 2, 3, 4, 5];

/** One key under a finger. `out` rises outwards from the thumb's side: MIDI upwards in the right hand, downwards in the left. */
export interface HeldKey {
  readonly id: string;
  readonly midi: number;
  readonly out: number;
  readonly struck: boolean;
}

/** Everything one hand has to do at one onset. Keys in order outwards. */
export interface Event {
  readonly onset: Ticks;
  /** End of the longest note struck here. */
  readonly end: Ticks;
  readonly keys: readonly HeldKey[];
  /** 1 joined to the event before; less after a rest, a phrase end or a staccato, which free the hand. */
  readonly bond: number;
  readonly staccato: boolean;
}

/** A finger for each key of an event, in the same order. */
export type Grip = readonly Finger[];

/**
 * The events of a hand. `resets` are ticks at which a new phrase begins; `beat` says how long a rest is long.
 */
export function eventsOf(
  notes: readonly SoundingNote[],
  hand: Hand,
  resets: ReadonlySet<Ticks>,
  beat: Ticks,
): Event[] {
  let sounding: SoundingNote[] = [];
  let silentFrom = -Infinity;
  let staccatoBefore = false;
  return byOnset(notes).map(({ onset, notes: struck }): Event => {
    const struckKeys = new Set(struck.map((n) => n.midi));
    sounding = sounding.filter((n) => n.onset + n.duration > onset && !struckKeys.has(n.midi));
    const room = Math.max(0, 5 - struck.length);
    // More than five keys at once cannot be held: what was struck longest ago is let go.
    const held = [...sounding].sort((a, b) => b.onset - a.onset).slice(0, room);
    const keys = [...held.map((n) => toKey(n, hand, false)), ...struck.map((n) => toKey(n, hand, true))].sort(
      (a, b) => a.out - b.out,
    );
    const rest = silentFrom === -Infinity ? 0 : onset - silentFrom;
    const bond = bondAfter(rest, beat) * (resets.has(onset) ? 0.4 : 1) * (staccatoBefore ? 0.6 : 1);
    silentFrom = Math.max(
      ...sounding.map((n) => n.onset + n.duration),
      ...struck.map((n) => n.onset + n.duration),
    );
    staccatoBefore = struck.some((n) => n.articulations.some((a) => a.startsWith('staccat')));
    sounding = [...sounding, ...struck];
    return {
      onset,
      end: Math.max(...struck.map((n) => n.onset + n.duration)),
      keys,
      bond,
      staccato: staccatoBefore,
    };
  });
}

const toKey = (note: SoundingNote, hand: Hand, struck: boolean): HeldKey => ({
  id: note.id,
  midi: note.midi,
  out: hand === 'right' ? note.midi : -note.midi,
  struck,
});

/** A rest of a beat or more leaves time to move; a shorter one some. */
function bondAfter(rest: Ticks, beat: Ticks): number {
  if (rest <= 0) return 1;
  return rest >= beat ? 0.2 : 0.5;
}

/**
 * The grips an event allows: fingers rise outwards, locked keys keep their finger. Where locks or numbers leave none,
 * the order is given up, and in the end a finger may take two keys, so that there is always an answer.
 */
export function gripsFor(event: Event, locks: ReadonlyMap<string, Finger>): Grip[] {
  const allowed = event.keys.map((k) => {
    const lock = locks.get(k.id);
    return lock ? [lock] : FINGERS;
  });
  const collect = (fits: (before: readonly Finger[], next: Finger) => boolean): Grip[] => {
    let partial: Finger[][] = [[]];
    for (const fingers of allowed)
      partial = partial.flatMap((p) => fingers.filter((f) => fits(p, f)).map((f) => [...p, f]));
    return partial;
  };
  const rising = collect((before, next) => before.every((f) => f < next));
  if (rising.length > 0) return rising;
  const distinct = collect((before, next) => !before.includes(next));
  if (distinct.length > 0) return distinct;
  return collect((before, next) => before.every((f) => f <= next))
    .concat(collect(() => true))
    .slice(0, 400);
}
