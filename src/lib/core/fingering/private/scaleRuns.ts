/** Runs through a scale or a chromatic scale, and the fingers that method books give them. */
import { isBlackKey } from '../../theory/pitch';
import type { Convention } from './convention';
import type { Event, Hand } from './event';
import { singleLines } from './figureShapes';
import { fingerAt, fitEnds, midiOf, pitchClassOf, runsOf, type Run } from './runs';
import {
  CHROMATIC_FINGERS,
  MAJOR_FINGERS,
  MINOR_FINGERS,
  SCALE_STEPS,
  type ScaleKind,
} from '../scaleFingers';
import type { Finger } from '../grips';

/** Notes fewer than these make no run. */
const SHORTEST_SCALE = 6;
const SHORTEST_CHROMATIC = 5;
/** Notes of a scale from its tonic to the next. */
const WHOLE_SCALE = 8;
const WEIGHT = { scale: 5, partOfScale: 1.1, chromatic: 5 } as const;

/** Fingers of a chromatic run, note by note; undefined where a run is none. */
export function chromatic(run: Run, hand: Hand): Convention[] | undefined {
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

/** Fingers of a run through a major or minor scale, note by note; undefined where a run is none. */
export function scale(run: Run, hand: Hand): Convention[] | undefined {
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
  const isLong = keys.length >= WHOLE_SCALE;
  if (!isLong && !best.anchored) return undefined;
  const weight = isLong && best.anchored ? WEIGHT.scale : WEIGHT.partOfScale;
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

/** From tonic to tonic, an octave or more. */
const isWholeScale = (events: readonly Event[]): boolean => {
  if (events.length < WHOLE_SCALE) return false;
  const keys = events.map(midiOf);
  return scalesOf(keys).some(({ tonic }) => [keys[0]!, keys.at(-1)!].every((k) => pitchClassOf(k) === tonic));
};

/** The runs of a line of single notes; where one whole scale follows another, a turn belongs to the scale that needs it. */
export function runsByScale(line: readonly Event[]): Run[] {
  const runs = runsOf(line);
  return runs.map((run, i): Run => {
    const { events } = run;
    if (isWholeScale(events)) return run;
    const [before, after] = [runs[i - 1], runs[i + 1]];
    if (before && isWholeScale(before.events) && isWholeScale(events.slice(1)))
      return { ...run, events: events.slice(1) };
    if (after && isWholeScale(after.events) && isWholeScale(events.slice(0, -1)))
      return { ...run, events: events.slice(0, -1) };
    return run;
  });
}

/** Events that begin a whole scale after another one: the hand goes there anew, and what it leaves keeps its fingers. */
export const scaleLifts = (events: readonly Event[]): readonly Event[] =>
  singleLines(events).flatMap((line) => {
    const scales = runsByScale(line).filter((run) => isWholeScale(run.events));
    return scales.slice(1).flatMap(({ events: [first] }, i) => {
      const before = scales[i]!.events.at(-1)!;
      return line[line.indexOf(before) + 1] === first ? [first!] : [];
    });
  });
