/** Close shapes of a chord for one hand, and the one nearest to the shape before. MIDI numbers, rising. */
import { isBlackKey } from '../score/pitch';
import { bassOf, chordTones, type Chord } from '../theory/chord';
import { pitchClass, type Fifths } from '../theory/fifths';
import { isClear } from './register';

export interface Voicing {
  readonly notes: readonly { readonly midi: number; readonly tone: Fifths }[];
}

export interface VoicingLimits {
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

/** All close shapes within the limits. A named bass stays lowest. */
export function closeVoicings(chord: Chord, limits: VoicingLimits): Voicing[] {
  const tones = playedTones(chord, limits.most);
  const result: Voicing[] = [];
  const lowest =
    chord.bass === undefined ? tones : tones.filter((t) => pitchClass(t) === pitchClass(chord.bass!));
  for (const bottom of lowest) {
    const others = tones
      .filter((t) => t !== bottom)
      .map((tone) => ({ tone, above: (((pitchClass(tone) - pitchClass(bottom)) % 12) + 12) % 12 || 12 }))
      .sort((a, b) => a.above - b.above);
    for (let midi = limits.low; midi <= limits.high; midi++) {
      if (((midi % 12) + 12) % 12 !== pitchClass(bottom)) continue;
      const notes = [{ midi, tone: bottom }, ...others.map((o) => ({ midi: midi + o.above, tone: o.tone }))];
      const numbers = notes.map((n) => n.midi);
      const top = numbers.at(-1)!;
      if (top > limits.high || top - midi > limits.span || !isClear(numbers)) continue;
      result.push({ notes });
    }
  }
  return result;
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

/**
 * Shapes by total movement from the one before; ties go to fewer black keys under the thumb of the left hand, then to the
 * lower one. Without a shape before, by how near they are to `home`, those with `bass` lowest first.
 */
export function byNearness(
  candidates: readonly Voicing[],
  before: Voicing | undefined,
  home: number,
  bass: Fifths,
): Voicing[] {
  const cost = (v: Voicing): number =>
    before
      ? movement(before, v)
      : Math.abs(v.notes[0]!.midi - home) + (v.notes[0]!.tone === bass ? 0 : INVERTED_START);
  return candidates
    .map((v) => ({ v, cost: cost(v), thumb: isBlackKey(v.notes.at(-1)!.midi) ? 1 : 0 }))
    .sort((a, b) => a.cost - b.cost || a.thumb - b.thumb || a.v.notes[0]!.midi - b.v.notes[0]!.midi)
    .map(({ v }) => v);
}
