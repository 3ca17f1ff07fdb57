/**
 * Where a line runs through a scale, a chromatic scale, an arpeggio or a five-finger pattern, the fingers that method
 * books give it. They are preferences and not laws: what comes before and after, a lock or a small hand may outweigh them.
 */
import { isBlackKey } from '../score/pitch';
import type { Convention } from './convention';
import { basses, chordFigures, quickRepetitions, rootAndFifth, singleLines } from './figureShapes';
import { usualShape } from './shapes';
import type { Event, Hand } from './event';
import type { Finger } from './grips';
import { CHROMATIC_FINGERS, MAJOR_FINGERS, MINOR_FINGERS, SCALE_STEPS, type ScaleKind } from './scaleFingers';

/** Notes fewer than these make no run. */
const SHORTEST_SCALE = 6;
const SHORTEST_CHROMATIC = 5;
const SHORTEST_ARPEGGIO = 5;
const WEIGHT = {
  scale: 5,
  partOfScale: 1.1,
  chromatic: 5,
  arpeggio: 12,
  fiveFingers: 3,
  brokenChord: 1.6,
} as const;

/** A stretch of single notes that all go one way. */
interface Run {
  readonly events: readonly Event[];
  /** 1 outwards from the thumb, −1 towards it. */
  readonly direction: 1 | -1;
}

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
    for (const run of runsOf(stretch)) {
      const usual = chromatic(run, hand) ?? scale(run, hand) ?? arpeggio(run, hand);
      if (usual) run.events.forEach((event, i) => keep(event.keys[0]!.id, usual[i]!));
    }
  }
  return found;
}

const outOf = (event: Event): number => event.keys[0]!.out;
const midiOf = (event: Event): number => event.keys[0]!.midi;
const pitchClassOf = (midi: number): number => midi % 12;

function runsOf(line: readonly Event[]): Run[] {
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

const fingerAt = (digits: string, index: number): Finger => Number(digits[index]) as Finger;

/**
 * Fingers inside a run, fitted at its ends: at the outer end the thumb gives way to the next finger, at the inner end a
 * finger that would only lead in may be the second.
 */
function fitEnds(
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

function chromatic(run: Run, hand: Hand): Convention[] | undefined {
  const { events } = run;
  if (events.length < SHORTEST_CHROMATIC) return undefined;
  if (events.some((e, i) => i > 0 && Math.abs(midiOf(e) - midiOf(events[i - 1]!)) !== 1)) return undefined;
  const inside = events.map((e) => fingerAt(CHROMATIC_FINGERS[hand], pitchClassOf(midiOf(e))));
  /** At an end the second finger is only needed beside a white key. */
  const leadsToBlack = (i: number): boolean =>
    (i === 0 && inside[1] === 3) || (i === inside.length - 1 && inside[i - 1] === 3);
  return inside.map((finger, i): Convention => ({
    fingers: finger === 2 && leadsToBlack(i) ? [1] : [finger],
    weight: WEIGHT.chromatic,
    of: 'the chromatic scale',
  }));
}

const TONIC_NAMES = ['C', 'D♭', 'D', 'E♭', 'E', 'F', 'F♯', 'G', 'A♭', 'A', 'B♭', 'B'];
const MINOR_TONIC_NAMES = ['C', 'C♯', 'D', 'E♭', 'E', 'F', 'F♯', 'G', 'G♯', 'A', 'B♭', 'B'];

function scale(run: Run, hand: Hand): Convention[] | undefined {
  const keys = run.events.map(midiOf);
  if (keys.length < SHORTEST_SCALE) return undefined;
  const best = scalesOf(keys)[0];
  if (!best) return undefined;
  const { tonic, kind } = best;
  const table = kind === 'major' ? MAJOR_FINGERS : MINOR_FINGERS;
  const steps: readonly number[] = SCALE_STEPS[kind];
  const inside = keys.map((k) =>
    fingerAt(table[tonic]![hand], steps.indexOf((((k - tonic) % 12) + 12) % 12)),
  );
  // A few notes of a scale are a melody; from tonic to tonic, or far along, they are the scale.
  const isWhole = keys.length > 7;
  if (!isWhole && !best.anchored) return undefined;
  const weight = isWhole && best.anchored ? WEIGHT.scale : WEIGHT.partOfScale;
  const name = `the scale of ${kind === 'major' ? TONIC_NAMES[tonic] : MINOR_TONIC_NAMES[tonic]} ${kind === 'major' ? 'major' : 'minor'}`;
  return fitEnds(run, inside, weight, name, {
    outer: (next) => [Math.min(5, next + 1) as Finger, 1],
    inner: (own) => (own === 4 ? [2, 4] : [own]),
  });
}

/** Scales through which keys go degree by degree: those that begin or end on their tonic first, then the usual ones. */
function scalesOf(keys: readonly number[]): { tonic: number; kind: ScaleKind; anchored: boolean }[] {
  const ends = [pitchClassOf(keys[0]!), pitchClassOf(keys.at(-1)!)];
  const fits: { tonic: number; kind: ScaleKind; anchored: boolean; rank: number }[] = [];
  (Object.keys(SCALE_STEPS) as ScaleKind[]).forEach((kind, kindRank) => {
    const steps: readonly number[] = SCALE_STEPS[kind];
    for (let tonic = 0; tonic < 12; tonic++) {
      // The fingers of the other minor scales differ from the harmonic one where the tonic is a black key.
      if (kind === 'melodic minor' && isBlackKey(tonic)) continue;
      const degrees = keys.map((k) => steps.indexOf((((k - tonic) % 12) + 12) % 12));
      if (degrees.includes(-1)) continue;
      const goesByDegree = degrees.every(
        (d, i) => i === 0 || [1, 6].includes((((d - degrees[i - 1]!) % 7) + 7) % 7),
      );
      if (!goesByDegree) continue;
      const anchors = ends.filter((e) => e === tonic).length;
      fits.push({ tonic, kind, anchored: anchors > 0, rank: anchors * 10 - kindRank });
    }
  });
  return fits.sort((a, b) => b.rank - a.rank);
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
    ? [1, 2, 3, 5]
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
      const shape = width > WIDEST_SHAPE ? openShape(sorted, end + 1 - start) : usualShape(sorted);
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
