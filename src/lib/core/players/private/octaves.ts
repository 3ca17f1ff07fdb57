/**
 * In which octave one pianist plays what several players had: each phrase in one octave, in the register in which a tune is read and
 * played gladly, without leaps that only come from going over from one instrument to another, or from a player who answers himself an octave away.
 */
import { cheapestPath } from '../../cheapestPath';
import { beatLength } from '../../score/metre';
import { inOctave, measureAt, type SoundingNote } from '../../score/query';
import type { Measure } from '../../score/score';

/** Where the middle of a phrase lies gladly (E♭4 to E5), and its extremes (A3 to C6). MIDI. */
const MIDDLE = { low: 63, high: 76 };
const EXTREMES = { low: 57, high: 84 };
/** Costs: a semitone outside of either; an octave from where the player has it. */
const OUTSIDE = 0.6;
const EXTREME = 0.8;
const MOVED = 1.6;
/** Costs between two stretches: another octave than before, in the same breath or after a rest; a leap of more than an octave; a wide one. */
const CHANGE = { within: 2.2, afterRest: 1.2 };
const BROKEN = 5;
const WIDE = 0.12;
/** What it costs to be in another octave than the same music has elsewhere. */
const UNLIKE = 5;
/** Semitones up to which a leap costs nothing, and beyond which it breaks the line. */
const [EASY, WIDEST] = [7, 12];
/** Beats of a rest that part two phrases, and fewest beats between two such places. */
const REST = 1;
const LEAST = 6;
const OCTAVES = [0, 1, -1, 2, -2, 3, -3];

interface Stretch {
  readonly notes: readonly SoundingNote[];
  /** It begins after a rest, not within a breath. */
  readonly isFresh: boolean;
}

/** Cut at rests and at leaps of more than an octave. */
function stretchesOf(line: readonly SoundingNote[], measures: readonly Measure[]): Stretch[] {
  const stretches: { notes: SoundingNote[]; isFresh: boolean }[] = [];
  for (const note of line) {
    const open = stretches.at(-1);
    const last = open?.notes.at(-1);
    if (!open || !last) {
      stretches.push({ notes: [note], isFresh: true });
      continue;
    }
    const beat = beatLength(measureAt(measures, note.onset).time);
    const rests = note.onset - last.onset - last.duration >= REST * beat;
    const isFresh = rests && note.onset - open.notes[0]!.onset >= LEAST * beat;
    if (isFresh || Math.abs(note.midi - last.midi) > WIDEST)
      stretches.push({ notes: [note], isFresh: isFresh || rests });
    else open.notes.push(note);
  }
  return stretches;
}

/** The line with each stretch in its octave: the cheapest way through all of them. */
export function inGladOctaves(line: readonly SoundingNote[], measures: readonly Measure[]): SoundingNote[] {
  const stretches = stretchesOf(line, measures);
  const own = stretches.map((stretch) => OCTAVES.map((o) => costOf(stretch, o)));
  const pathOf = (costs: readonly (readonly number[])[]): number[] =>
    cheapestPath(costs, (from, to, i) =>
      between(stretches[i - 1]!, OCTAVES[from]!, stretches[i]!, OCTAVES[to]!),
    );
  // Solved freely the places of the same music vote; solved again, to depart from the vote costs.
  const music = stretches.map(musicOf);
  const soundsAt = (i: number, k: number): number => stretches[i]!.notes[0]!.midi + 12 * OCTAVES[k]!;
  const votes = votesOf(
    music,
    pathOf(own).map((k, i) => soundsAt(i, k)),
  );
  const path = pathOf(
    own.map((costs, i) =>
      costs.map((cost, k) => cost + (soundsAt(i, k) === votes.get(music[i]!) ? 0 : UNLIKE)),
    ),
  );
  return stretches.flatMap(({ notes }, i) => notes.map((n) => inOctave(n, OCTAVES[path[i]!]!)));
}

/** What makes two stretches the same music: when they strike, and which keys, in any octave. */
const musicOf = ({ notes }: Stretch): string =>
  notes.map((n) => `${n.onset - notes[0]!.onset}:${n.midi - notes[0]!.midi}`).join(' ') +
  ` ${notes[0]!.midi % 12}`;

/** The key on which most places of the same music begin, the first of equals. `keys` are those on which each begins. */
function votesOf(music: readonly string[], keys: readonly number[]): Map<string, number> {
  const counts = new Map<string, Map<number, number>>();
  music.forEach((name, i) => {
    const count = counts.get(name) ?? new Map<number, number>();
    counts.set(name, count.set(keys[i]!, (count.get(keys[i]!) ?? 0) + 1));
  });
  return new Map([...counts].map(([name, count]) => [name, [...count].sort((a, b) => b[1] - a[1])[0]![0]]));
}

function costOf({ notes }: Stretch, octaves: number): number {
  const keys = notes.map((n) => n.midi + 12 * octaves).sort((a, b) => a - b);
  const middle = keys[Math.floor(keys.length / 2)]!;
  // Few notes weigh little: they go where what is around them lies.
  const weight = Math.min(1, 0.25 + notes.length / 12);
  return (
    weight *
      (OUTSIDE * (Math.max(0, MIDDLE.low - middle) + Math.max(0, middle - MIDDLE.high)) +
        EXTREME * (Math.max(0, EXTREMES.low - keys[0]!) + Math.max(0, keys.at(-1)! - EXTREMES.high))) +
    MOVED * weight * Math.abs(octaves)
  );
}

function between(before: Stretch, from: number, stretch: Stretch, to: number): number {
  const [last, first] = [before.notes.at(-1)!, stretch.notes[0]!];
  const leap = Math.abs(first.midi + 12 * to - last.midi - 12 * from);
  const change = from === to ? 0 : stretch.isFresh ? CHANGE.afterRest : CHANGE.within;
  const broken = leap > WIDEST ? BROKEN * (stretch.isFresh ? 0.5 : 1) : 0;
  return change * Math.abs(from - to) + broken + WIDE * Math.max(0, leap - EASY);
}
