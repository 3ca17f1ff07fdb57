/** A teacher's pattern over one chord: which keys its numbers are, in each octave or inversion that may stand there. */
import { keyAt } from '../../score/metre';
import { bassOf, chordTones, type Chord } from '../../theory/chord';
import { pitchClass, type Fifths } from '../../theory/fifths';
import { scaleFifths, type Key } from '../../theory/key';
import { heightOf, patternPlaces, type PatternTone, type TeacherPattern } from '../teacherPattern';
import {
  basses,
  blockShapes,
  type ChordContext,
  type Figuration,
  type PianoKey,
  type Stroke,
} from './patterns';

const mod12 = (n: number): number => ((n % 12) + 12) % 12;
const mod7 = (n: number): number => ((n % 7) + 7) % 7;

/** The middle of a pattern lies best here, F3; its 1 no higher than D3. */
const MIDDLE = 53;
const HIGHEST_HOME = 50;
/** Where the 1 of a pattern lies best: the wider it is, the lower. `heights` in steps of the scale. */
const homeOf = (heights: readonly number[]): number =>
  Math.min(HIGHEST_HOME, Math.round(MIDDLE - ((Math.min(...heights) + Math.max(...heights)) / 2) * (12 / 7)));
/** The four tones that name a chord; what is stacked above them is a tone of the scale here. */
const NAMING_TONES = 4;

/** The chord from its bass upwards: what 1, 3, 5 and 7 stand for over a low key. */
function ladderOver(chord: Chord, bass: PianoKey): PianoKey[] {
  const above = chordTones(chord)
    .slice(0, NAMING_TONES)
    .filter((tone) => pitchClass(tone) !== mod12(bass.midi))
    .map((tone) => ({ midi: bass.midi + mod12(pitchClass(tone) - bass.midi), tone }));
  return [bass, ...above.sort((a, b) => a.midi - b.midi)];
}

/** The key of a pattern's number: a tone of the chord for odd ones, a note of the key between them for even ones. */
function keyFor(
  { number, octave }: PatternTone,
  ladder: readonly PianoKey[],
  chord: Chord,
  key: Key,
): PianoKey {
  const lowest = ladder[0]!;
  if (number % 2 === 1) {
    const rung = (number - 1) / 2;
    const [tone, up] =
      rung < ladder.length ? [ladder[rung]!, 0] : rung === 3 ? [lowest, 1] : [ladder.at(-1)!, 0];
    return { ...tone, midi: tone.midi + 12 * (octave + up) };
  }
  // A letter further is two fifths further round the seven.
  const isLetter = (tone: Fifths): boolean => mod7(tone - lowest.tone - 2 * (number - 1)) === 0;
  const tone = chordTones(chord).find(isLetter) ?? scaleFifths(key).find(isLetter)!;
  return { midi: lowest.midi + mod12(pitchClass(tone) - lowest.midi) + 12 * octave, tone };
}

/** A pattern over a ladder of keys from one tick to another. Each key is struck once, the lowest first. */
export function patternStrokes(
  pattern: TeacherPattern,
  ladder: readonly PianoKey[],
  { onset, end, chord }: { readonly onset: number; readonly end: number; readonly chord: Chord },
  key: Key,
): Stroke[] {
  return patternPlaces(pattern, onset, end).map((place): Stroke => {
    const keys = place.tones.map((tone) => keyFor(tone, ladder, chord, key));
    const once = new Map(keys.map((k) => [k.midi, k] as const));
    return { ...place, keys: [...once.values()].sort((a, b) => a.midi - b.midi) };
  });
}

/** A pattern in the left hand over one chord: near where the hand was, then further away. */
export function* teacherFigurations(pattern: TeacherPattern, g: ChordContext): Generator<Figuration> {
  const { stretch, measure } = g;
  const key = keyAt(measure, stretch.onset);
  const tones = pattern.steps.flatMap((step) => step.tones);
  const made = (ladder: readonly PianoKey[]): Stroke[] => patternStrokes(pattern, ladder, stretch, key);
  if (pattern.over === 'nearest')
    for (const shape of blockShapes(g, tones.some((t) => t.number === 7) ? 4 : 3))
      yield { strokes: made(shape.notes), place: { bass: shape.notes[0]!.midi, shape } };
  // What goes below its 1 is a bass that moves, and no broken chord.
  const isLine = pattern.steps.every((s) => s.tones.length === 1) && Math.min(...tones.map(heightOf)) < 0;
  for (const bass of basses(g, homeOf(tones.map(heightOf)), g.ceiling)) {
    const ladder = ladderOver(stretch.chord, { midi: bass.midi, tone: bassOf(stretch.chord) });
    yield { strokes: made(ladder), place: { bass: bass.midi }, ...(isLine ? { isLine } : {}) };
  }
}
