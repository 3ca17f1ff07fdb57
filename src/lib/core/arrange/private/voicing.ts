/** Close shapes of a chord for one hand, and the one nearest to the shape before. MIDI numbers, rising. */
import { isBlackKey } from '../../theory/pitch';
import { bassOf, chordTones, type Chord } from '../../theory/chord';
import { pitchClass, type Fifths } from '../../theory/fifths';
import { isClear } from '../../hands/register';

export interface Voicing {
  readonly notes: readonly { readonly midi: number; readonly tone: Fifths }[];
}

interface VoicingLimits {
  readonly low: number;
  /** No note above this. */
  readonly high: number;
  readonly span: number;
  readonly most: number;
}

/** The tones a hand of `most` notes plays: sevenths and ninths give up the fifth first, never the root or a named bass. */
export function playedTones(chord: Chord, most: number): Fifths[] {
  const tones = chordTones(chord);
  if (most <= 1) return [bassOf(chord)];
  const [root, third, fifth, seventh] = tones;
  const order = [root, third, seventh, fifth].filter((t): t is Fifths => t !== undefined);
  const chosen = order.slice(0, most);
  if (chord.bass !== undefined && !chosen.some((t) => pitchClass(t) === pitchClass(chord.bass!)))
    return [chord.bass, ...chosen.slice(0, most - 1)];
  return tones.length === 2 ? tones.slice(0, most) : chosen;
}

const mod12 = (n: number): number => ((n % 12) + 12) % 12;

/** The keys of a tone between two bounds, rising. */
export function octavesOf(tone: Fifths, low: number, high: number): number[] {
  const result: number[] = [];
  for (let midi = low + mod12(pitchClass(tone) - low); midi <= high; midi += 12) result.push(midi);
  return result;
}

/** Every close shape of some tones between two keys: each of `bottoms` lowest, the others next above it. */
export const closeShapes = (
  tones: readonly Fifths[],
  low: number,
  high: number,
  bottoms: readonly Fifths[] = tones,
): Voicing[] =>
  bottoms.flatMap((bottom) =>
    octavesOf(bottom, low, high)
      .map((midi): Voicing => ({
        notes: [
          { midi, tone: bottom },
          ...tones
            .filter((t) => t !== bottom)
            .map((tone) => ({ midi: midi + (mod12(pitchClass(tone) - midi) || 12), tone }))
            .sort((x, y) => x.midi - y.midi),
        ],
      }))
      .filter(({ notes }) => notes.at(-1)!.midi <= high),
  );

/** Semitones from the lowest to the highest key. */
export const widthOf = ({ notes }: Voicing): number => notes.at(-1)!.midi - notes[0]!.midi;

/** All close shapes of a chord within the limits. A named bass stays lowest. */
export function closeVoicings(chord: Chord, { low, high, span, most }: VoicingLimits): Voicing[] {
  const tones = playedTones(chord, most);
  const { bass } = chord;
  const bottoms = bass === undefined ? tones : tones.filter((t) => pitchClass(t) === pitchClass(bass));
  return closeShapes(tones, low, high, bottoms).filter(
    (v) => widthOf(v) <= span && isClear(v.notes.map((n) => n.midi)),
  );
}

/** Total movement of all voices between two shapes, in semitones; voices are paired from the top down. */
export function movement(from: Voicing, to: Voicing): number {
  const a = from.notes.map((n) => n.midi).reverse();
  const b = to.notes.map((n) => n.midi).reverse();
  let sum = 0;
  for (let i = 0; i < Math.max(a.length, b.length); i++)
    sum += Math.abs((a[i] ?? a.at(-1)!) - (b[i] ?? b.at(-1)!));
  return sum;
}

/** How many semitones away from home a first shape may lie rather than be an inversion. */
const INVERTED_START = 8;

interface Nearness {
  /** The shape before. */
  readonly before: Voicing | undefined;
  /** Where the lowest key of a first shape lies best. */
  readonly home: number;
  /** What a semitone away from home counts in later shapes, beside one of movement: so the hand does not drift. */
  readonly pull?: number;
  /** The tone that is better lowest in a first shape. */
  readonly bass?: Fifths;
  /** Which end of a shape is under the thumb. */
  readonly thumb: 'top' | 'bottom';
}

/**
 * Shapes by total movement from the one before; ties go to fewer black keys under the thumb, then to the lower one. Without
 * a shape before, by how near they are to home.
 */
export function byNearness(
  candidates: readonly Voicing[],
  { before, home, pull = 0, bass, thumb }: Nearness,
): Voicing[] {
  const cost = ({ notes }: Voicing): number =>
    Math.abs(notes[0]!.midi - home) + (bass === undefined || notes[0]!.tone === bass ? 0 : INVERTED_START);
  const underThumb = ({ notes }: Voicing): number => notes.at(thumb === 'top' ? -1 : 0)!.midi;
  return candidates
    .map((v) => ({
      v,
      cost: before ? movement(before, v) + pull * Math.abs(v.notes[0]!.midi - home) : cost(v),
      black: isBlackKey(underThumb(v)) ? 1 : 0,
    }))
    .sort((x, y) => x.cost - y.cost || x.black - y.black || x.v.notes[0]!.midi - y.v.notes[0]!.midi)
    .map(({ v }) => v);
}
