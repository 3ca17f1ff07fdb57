/**
 * Where a line runs through a scale, a chromatic scale, an arpeggio or a five-finger pattern, the fingers that method
 * books give it. They are preferences and not laws: what comes before and after, a lock or a small hand may outweigh them.
 */
import { isBlackKey } from '../../theory/pitch';
import type { Convention } from './convention';
import { basses, chordFigures, quickRepetitions, rootAndFifth, singleLines } from './figureShapes';
import { brokenShape, turningShape } from '../shapes';
import type { Event, Hand } from './event';
import type { Finger } from '../grips';
import { fitEnds, midiOf, outOf, pitchClassOf, type Run } from './runs';
import { chromatic, runsByScale, scale } from './scaleRuns';

/** Notes fewer than these make no run. */
const SHORTEST_ARPEGGIO = 5;
const WEIGHT = {
  arpeggio: 12,
  fiveFingers: 3,
  brokenChord: 1.6,
} as const;

/** Conventions by note id, for the events of one hand. */
export function conventionsOf(events: readonly Event[], hand: Hand): Map<string, Convention> {
  const found = new Map<string, Convention>();
  const keep = (id: string, convention: Convention): void => {
    const known = found.get(id);
    // Where two runs meet, at a turn, what suits both is usual; else the stronger speaks.
    const both = known?.fingers.filter((f) => convention.fingers.includes(f)) ?? [];
    if (known && both.length > 0) found.set(id, { ...known, fingers: both });
    else if (!known || known.weight < convention.weight) found.set(id, convention);
  };
  for (const [id, convention] of quickRepetitions(events)) keep(id, convention);
  if (hand === 'left') for (const [id, convention] of basses(events)) keep(id, convention);
  for (const stretch of singleLines(events)) {
    for (const [id, convention] of chordFigures(stretch)) keep(id, convention);
    if (hand === 'left') for (const [id, convention] of rootAndFifth(stretch)) keep(id, convention);
    const fiveFingers = fiveFingerPattern(stretch);
    if (fiveFingers) {
      for (const [id, convention] of fiveFingers) keep(id, convention);
      continue;
    }
    for (const [id, convention] of brokenChords(stretch)) keep(id, convention);
    for (const run of runsByScale(stretch)) {
      const usual = chromatic(run, hand) ?? scale(run, hand) ?? arpeggio(run, hand);
      if (usual) run.events.forEach((event, i) => keep(event.keys[0]!.id, usual[i]!));
    }
  }
  return found;
}

function arpeggio(run: Run, hand: Hand): Convention[] | undefined {
  const keys = run.events.map(midiOf);
  if (keys.length < SHORTEST_ARPEGGIO) return undefined;
  const distances = keys.slice(1).map((k, i) => Math.abs(k - keys[i]!));
  if (distances.some((d) => d < 2 || d > 6)) return undefined;
  const classes = [...new Set(keys.map(pitchClassOf))];
  // Every tone comes back an octave away and none in between: it is one chord, in order.
  const size = classes.length;
  if (size < 3 || size > 4 || keys.length <= size + (size === 4 ? 1 : 0)) return undefined;
  if (keys.some((k, i) => i >= size && Math.abs(k - keys[i - size]!) !== 12)) return undefined;
  const lowest = Math.min(...keys);
  /** The chord from the lowest key up, within an octave. */
  const chord = classes.map((c) => lowest + ((((c - lowest) % 12) + 12) % 12)).sort((a, b) => a - b);
  const fingersByClass = arpeggioFingers(chord, hand);
  const inside = keys.map((k) => fingersByClass.get(pitchClassOf(k))!);
  return fitEnds(run, inside, WEIGHT.arpeggio, 'the arpeggio', {
    outer: () => [5],
    inner: (own) => (own === 4 ? [2] : [own]),
  });
}

/** Fingers of an arpeggio by pitch class. `chord` rises from its lowest key within an octave. */
function arpeggioFingers(chord: readonly number[], hand: Hand): Map<number, Finger> {
  const size = chord.length;
  const whites = chord.filter((k) => !isBlackKey(k));
  const lowest = chord[0]!;
  // The thumb takes the lowest key where it is white, or all are black; else the first white one in the way of the hand.
  const thumb =
    whites.length === 0 || !isBlackKey(lowest) ? lowest : hand === 'right' ? whites[0]! : whites.at(-1)!;
  const from = chord.indexOf(thumb);
  /** From the thumb outwards. */
  const outwards = chord.map((_, i) => {
    const at = hand === 'right' ? from + i : from - i;
    const octaves = Math.floor(at / size);
    return chord[at - octaves * size]! + 12 * octaves;
  });
  const rest: Finger[] =
    size === 4 ? [2, 3, 4] : [2, hand === 'left' && thumb === lowest ? leftThird(chord) : outerOf(outwards)];
  return new Map(outwards.map((k, i) => [((k % 12) + 12) % 12, i === 0 ? 1 : rest[i - 1]!] as const));
}

/** A fourth between the outer two asks for the fourth finger. */
const outerOf = (outwards: readonly number[]): Finger => (Math.abs(outwards[2]! - outwards[1]!) >= 5 ? 4 : 3);

/** Left hand from a thumb on the lowest tone: 5-3-2-1 where the second tone is black and a major third away, else 5-4-2-1. */
function leftThird(chord: readonly number[]): Finger {
  const isRootPosition = chord[1]! - chord[0]! <= 4 && chord[2]! - chord[1]! <= 4;
  if (!isRootPosition) return chord[2]! - chord[1]! <= 4 ? 3 : 4;
  return chord[1]! - chord[0]! === 4 && isBlackKey(chord[1]!) ? 3 : 4;
}

/** Fewest notes of a broken chord, so that three notes of a melody are none. */
const SHORTEST_BROKEN = 4;
/** A tenth in semitones, up to which three keys are one shape; and two octaves, over which the hand goes along. */
const WIDEST_SHAPE = 16;
const WIDEST_BROKEN = 24;

/** Four keys that no hand holds at once, gone through up and down: a finger for each, the hand carried along. */
const openShape = (outs: readonly number[], notes: number): readonly Finger[] | undefined =>
  outs.length === 4 && notes > SHORTEST_BROKEN && outs.every((o, i) => i === 0 || o - outs[i - 1]! <= 12)
    ? (turningShape(outs) ?? [1, 2, 3, 5])
    : undefined;

/** Stretches that touch only the keys of one chord in one shape: they lie as the chord does when it is struck. */
function brokenChords(line: readonly Event[]): [string, Convention][] {
  const found: [string, Convention][] = [];
  for (let start = 0; start < line.length;) {
    const outs = new Set<number>();
    let best: { end: number; outs: readonly number[]; shape: readonly Finger[] } | undefined;
    for (let end = start; end < line.length; end++) {
      // A new key after the chord has gone round belongs to what comes next.
      if (best && best.end - start >= SHORTEST_BROKEN && !outs.has(outOf(line[end]!))) break;
      outs.add(outOf(line[end]!));
      const sorted = [...outs].sort((a, b) => a - b);
      const width = sorted.at(-1)! - sorted[0]!;
      if (sorted.length > 4 || width > WIDEST_BROKEN) break;
      const shape = width > WIDEST_SHAPE ? openShape(sorted, end + 1 - start) : brokenShape(sorted);
      if (shape && sorted.length > 2) best = { end: end + 1, outs: sorted, shape };
    }
    if (!best || best.end - start < SHORTEST_BROKEN) {
      start += 1;
      continue;
    }
    for (const event of line.slice(start, best.end))
      found.push([
        event.keys[0]!.id,
        {
          fingers: [best.shape[best.outs.indexOf(outOf(event))]!],
          weight: WEIGHT.brokenChord,
          of: 'the block chord',
        },
      ]);
    start = best.end;
  }
  return found;
}

/** A line that stays on five neighbouring keys of a scale. */
function fiveFingerPattern(line: readonly Event[]): Map<string, Convention> | undefined {
  const outs = [...new Set(line.map(outOf))].sort((a, b) => a - b);
  if (line.length < 5 || outs.length !== 5) return undefined;
  const steps = outs.slice(1).map((o, i) => o - outs[i]!);
  if (steps.some((s) => s > 2) || outs[4]! - outs[0]! < 6) return undefined;
  return new Map(
    line.map((event) => [
      event.keys[0]!.id,
      {
        fingers: [(outs.indexOf(outOf(event)) + 1) as Finger],
        weight: WEIGHT.fiveFingers,
        of: 'a five-finger position',
      },
    ]),
  );
}
