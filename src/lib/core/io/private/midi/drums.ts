/**
 * What the drums of a band tell of its music before they are left out: where measures and their groups begin, whether eighths swing, and in
 * which style it is played. Keys by General MIDI.
 */
import { measureLength } from '../../../score/metre';
import type { TimeSignature } from '../../../score/score';
import { TICKS_PER_QUARTER, type Ticks } from '../../../score/ticks';

export interface Struck {
  readonly onset: Ticks;
  /** General MIDI key of the drum. */
  readonly key: number;
}

const KICKS = new Set([35, 36]);
const SNARES = new Set([37, 38, 39, 40]);
/** What keeps the time: hi-hats, rides, shakers, maracas, cabasa, tambourine. */
const TIMEKEEPERS = new Set([42, 44, 46, 51, 53, 54, 59, 69, 70, 82]);

/** Places in a beat, in shares of it. */
const [STRAIGHT, SWUNG, TRIPLET] = [1 / 2, 2 / 3, 1 / 3];
const NEAR = 0.055;
/** Strokes off the beat that must be there to say anything. */
const FEWEST = 8;
/** Share of the strokes off the beat that must be late, for eighths to swing. */
const MOSTLY = 0.7;

/**
 * Whether the timekeeper swings: its strokes between the beats come on the third third, seldom on the second, and hardly ever on the half.
 * A full triplet is compound time, not swing.
 */
export function drumsSwing(strokes: readonly Struck[]): boolean {
  const places = strokes
    .filter(({ key }) => TIMEKEEPERS.has(key) || SNARES.has(key))
    .map(({ onset }) => (onset % TICKS_PER_QUARTER) / TICKS_PER_QUARTER);
  const count = (place: number): number => places.filter((p) => Math.abs(p - place) < NEAR).length;
  const [late, even, early] = [count(SWUNG), count(STRAIGHT), count(TRIPLET)];
  return late >= FEWEST && late > MOSTLY * (late + even) && early < late / 3;
}

/** How the drums weigh a place: a kick begins something, a backbeat does not. */
export function drumAccents(strokes: readonly Struck[]): Map<Ticks, number> {
  const accents = new Map<Ticks, number>();
  for (const { onset, key } of strokes) {
    const weight = KICKS.has(key) ? 0.5 : key === 49 || key === 57 ? 0.6 : SNARES.has(key) ? -0.25 : 0;
    if (weight !== 0) accents.set(onset, (accents.get(onset) ?? 0) + weight);
  }
  return accents;
}

/** Strokes that begin a group: those of kicks and snares. */
export const beginsGroup = ({ key }: Struck): boolean => KICKS.has(key) || SNARES.has(key);

/** The style that drums alone give away. */
type DrumStyle = 'waltz' | 'march' | 'swing';

/** Waltz: a kick on one and lighter strokes on two and three; march: a snare that rolls on; swing: by the timekeeper. */
export function drumStyle(
  strokes: readonly Struck[],
  time: TimeSignature,
  from: Ticks,
): DrumStyle | undefined {
  if (drumsSwing(strokes)) return 'swing';
  if (time.beats !== 3 || time.beatType !== 4) return undefined;
  const full = measureLength(time);
  const on = (beat: number, keys: ReadonlySet<number>): number =>
    strokes.filter(
      ({ onset, key }) =>
        keys.has(key) &&
        onset >= from &&
        Math.abs(((onset - from) % full) - beat * TICKS_PER_QUARTER) < TICKS_PER_QUARTER / 8,
    ).length;
  const light = new Set([...SNARES, ...TIMEKEEPERS]);
  const low = on(0, KICKS);
  return low >= FEWEST && on(1, light) > low / 2 && on(2, light) > low / 2 && on(1, KICKS) < low / 2
    ? 'waltz'
    : undefined;
}
