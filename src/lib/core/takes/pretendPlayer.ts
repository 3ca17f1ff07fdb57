/**
 * A pretend player, which ships with the program for the demo, for tests and for measuring the ear: plays an expectation with set habits
 * from a seed, and says what it did wrong. It is no model of learning, only of takes.
 */
import { TICKS_PER_QUARTER } from '../score/ticks';
import type { Expectation, TakenHand } from './expectation';
import type { Keystroke } from './keystroke';

export interface Habits {
  readonly seed: number;
  /** Quarter notes per minute; without it as asked. */
  readonly tempo?: number;
  /** How far the tempo wanders, as a share: 0.15 is up to 15 % either way. */
  readonly drift?: number;
  /** Standard deviation of each key's time, in seconds. */
  readonly jitter?: number;
  /** Share of chords that are rolled, from the lowest key up. */
  readonly rolled?: number;
  /** Shares of notes that are another key, missed, or followed by one too many. */
  readonly wrong?: number;
  readonly missed?: number;
  readonly extra?: number;
  /** Share of measures before which the player hesitates. */
  readonly hesitating?: number;
  /** The hand that makes three times as many mistakes. */
  readonly weakHand?: TakenHand;
  /** Plays one hand only. */
  readonly hand?: TakenHand;
  /** The order of onsets, where it is not once through: each from and to, both included. */
  readonly route?: readonly (readonly [from: number, to: number])[];
}

export type Mistake =
  | {
      readonly kind: 'wrong';
      readonly note: number;
      readonly midi: number;
      readonly at: number;
      readonly pass: number;
    }
  | { readonly kind: 'missed'; readonly note: number; readonly pass: number }
  | { readonly kind: 'extra'; readonly midi: number; readonly at: number; readonly pass: number };

/** A keystroke, and what it was meant to be. */
export interface MeantKeystroke extends Keystroke {
  /** Place of the note among the expectation's; undefined where the key is one too many. */
  readonly note?: number;
  /** Place of its stretch in the route. */
  readonly pass: number;
}

export interface Played {
  /** In order of time. */
  readonly keystrokes: readonly MeantKeystroke[];
  readonly mistakes: readonly Mistake[];
}

/** Numbers from 0 to 1 from a seed, always the same (mulberry32). */
function randomFrom(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = state;
    t = Math.imul(t ^ (t >>> 15), t | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4_294_967_296;
  };
}

/** Seconds of a hesitation, between the keys of a rolled chord, and of a pause before going back or on elsewhere. */
const [HESITATION, ROLL, PAUSE] = [1.4, 0.045, 0.9];
const WEAK = 3;

export function pretendToPlay({ onsets, tempo: asked }: Expectation, habits: Habits): Played {
  const random = randomFrom(habits.seed);
  const normal = (): number => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
  const { drift = 0, jitter = 0, rolled = 0, hesitating = 0 } = habits;
  const route = habits.route ?? [[0, onsets.length - 1]];
  const chance = (share: number | undefined, hand: TakenHand): boolean =>
    random() < (share ?? 0) * (habits.weakHand === hand ? WEAK : 1);
  const keystrokes: MeantKeystroke[] = [];
  const mistakes: Mistake[] = [];
  const strike = (at: number, midi: number, pass: number, note?: number): void => {
    const velocity = Math.round(54 + 30 * random());
    keystrokes.push({ onset: at, midi, velocity, pass, ...(note === undefined ? {} : { note }) });
  };
  let now = 0.5;
  // A slow wave of the tempo, its phase by the seed.
  const phase = 2 * Math.PI * random();
  const paceAt = (time: number): number =>
    (60 / (habits.tempo ?? asked)) * (1 + drift * Math.sin(phase + time / 7));
  route.forEach(([from, to], pass) => {
    if (pass > 0) now += PAUSE;
    for (let i = from; i <= to; i++) {
      const { notes, time, opensMeasure } = onsets[i]!;
      if (i > from) now += ((time - onsets[i - 1]!.time) / TICKS_PER_QUARTER) * paceAt(now);
      if (opensMeasure && i > from && random() < hesitating) now += HESITATION;
      const chord = notes.filter((n) => !n.isOrnament && (!habits.hand || n.hand === habits.hand));
      const isRolled = chord.length > 2 && random() < rolled;
      chord.forEach((note, place) => {
        const at = now + (isRolled ? place * ROLL : 0) + jitter * normal();
        if (chance(habits.missed, note.hand)) {
          mistakes.push({ kind: 'missed', note: note.index, pass });
          return;
        }
        if (chance(habits.wrong, note.hand)) {
          const midi = otherKey(
            chord.map((n) => n.midi),
            note.midi,
            random,
          );
          strike(at, midi, pass, note.index);
          mistakes.push({ kind: 'wrong', note: note.index, midi, at, pass });
          return;
        }
        strike(at, note.midi, pass, note.index);
        if (chance(habits.extra, note.hand)) {
          const midi = otherKey(
            chord.map((n) => n.midi),
            note.midi,
            random,
          );
          const late = at + 0.08 + 0.06 * random();
          strike(late, midi, pass);
          mistakes.push({ kind: 'extra', midi, at: late, pass });
        }
      });
    }
  });
  return { keystrokes: keystrokes.sort((a, b) => a.onset - b.onset), mistakes };
}

/** A key beside one, a half or a whole step away, that is none of the chord. */
function otherKey(chord: readonly number[], midi: number, random: () => number): number {
  const near = [midi - 2, midi - 1, midi + 1, midi + 2].filter((key) => !chord.includes(key));
  return near[Math.floor(random() * near.length)] ?? midi + 3;
}
