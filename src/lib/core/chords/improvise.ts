/** What can be played freely over the chords of a piece: few tones that always sound well, and rhythms that a level can read. */
import { dotsAllowed, shortestValue, type LevelContract } from '../arrange/levels';
import { beatLength, isCompound, measureLength } from '../score/metre';
import { noteValue } from '../score/ticks';
import type { TimeSignature } from '../score/score';
import type { Ticks } from '../score/ticks';
import { chordTones, type Chord } from '../theory/chord';
import { pitchClass, type Fifths } from '../theory/fifths';
import { tonicFifths, type Key } from '../theory/key';
import { hasMinorThird } from '../theory/modes';

/** The five tones without half steps between them, from the tonic up, on the line of fifths: none of them rubs against the others. */
const PENTATONIC = { major: [0, 2, 4, 1, 3], minor: [0, -3, -1, 1, -2] } as const;

/** Five tones that go with every chord of the key. */
export const fiveTones = (key: Key): Fifths[] =>
  PENTATONIC[hasMinorThird(key.mode) ? 'minor' : 'major'].map((f) => tonicFifths(key) + f);

/**
 * Three tones for one chord: its root, its fifth, and between them the tone of the five that lies next above the root; where the root is
 * none of the five, the chord's own third.
 */
export function threeTones(chord: Chord, key: Key): Fifths[] {
  const [root, third, fifth] = chordTones(chord) as [Fifths, Fifths | undefined, Fifths | undefined];
  const five = fiveTones(key);
  const above = (tone: Fifths): number => (pitchClass(tone) - pitchClass(root) + 12) % 12;
  const next = [...five].filter((t) => above(t) > 0).sort((a, b) => above(a) - above(b))[0];
  const middle = five.some((t) => above(t) === 0) && next !== undefined ? next : third;
  return [
    root,
    ...(middle === undefined ? [] : [middle]),
    ...(fifth === undefined || fifth === middle ? [] : [fifth]),
  ];
}

/** Divisions of one beat in parts of it: a rhythm is a row of them. A longer one takes several beats. */
const SIMPLE: readonly (readonly number[])[] = [[2], [1], [0.5, 0.5], [1.5, 0.5], [0.75, 0.25]];
/** Of a dotted beat, in thirds. */
const COMPOUND: readonly (readonly number[])[] = [[2], [1], [2 / 3, 1 / 3], [1 / 3, 1 / 3, 1 / 3]];

const MOST_RHYTHMS = 4;

/**
 * Rhythms that fill a measure, the calmest first: lengths in ticks, none shorter than the level reads, dots only where it has them.
 */
export function rhythmsFor(contract: LevelContract, time: TimeSignature): Ticks[][] {
  const beat = beatLength(time);
  const beats = Math.round(measureLength(time) / beat);
  const shortest = shortestValue(contract, time);
  const dots = dotsAllowed(contract, time);
  const isReadable = (length: Ticks): boolean => {
    if (length < shortest) return false;
    const plain = (2 * length) / 3;
    const isDotted = [1, 2, 4, 8, 16].some((v) => noteValue(v) === plain);
    return !isDotted || isCompound(time) || dots === null || dots.some((v) => noteValue(v) === plain);
  };
  const cells = (isCompound(time) ? COMPOUND : SIMPLE)
    .map((cell) => cell.map((share) => Math.round(share * beat)))
    .filter((cell) => cell.every(isReadable));
  const found: Ticks[][] = [];
  const fill = (rhythm: readonly (readonly Ticks[])[], left: number): void => {
    if (left === 0) {
      found.push(rhythm.flat());
      return;
    }
    for (const cell of cells) {
      const takes = Math.round(cell.reduce((a, b) => a + b, 0) / beat);
      if (takes <= left) fill([...rhythm, cell], left - takes);
    }
  };
  fill([], beats);
  // Different in how many strokes they have first, then in where they are; whole measures of one value teach nothing.
  const moving = found.filter((r) => r.length > 1).sort((a, b) => a.length - b.length);
  const step = Math.max(1, Math.floor(moving.length / MOST_RHYTHMS));
  return moving.filter((_, i) => i % step === 0).slice(0, MOST_RHYTHMS);
}
