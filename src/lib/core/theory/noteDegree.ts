/** Notes of a melody as degrees of a key and as tones of a chord, in the numbers that players use. */
import { chordTones, type Chord } from './chord';
import { fromFifths, pitchClass, toFifths } from './fifths';
import { alterInKey, tonicFifths, type Key } from './key';
import type { Pitch, Step } from './pitch';

const LETTERS: readonly Step[] = ['C', 'D', 'E', 'F', 'G', 'A', 'B'];
const lettersUp = (from: Step, to: Step): number => (LETTERS.indexOf(to) - LETTERS.indexOf(from) + 7) % 7;

type Named = Pick<Pitch, 'step' | 'alter'>;

/** "5" for the fifth note of the scale, "♯4" for a raised fourth; counted from the home note of the key, in its own mode. */
export function noteDegree({ step, alter }: Named, key: Key): string {
  const by = alter - alterInKey(step, key);
  const sign = by === 0 ? '' : (by > 0 ? '♯' : '♭').repeat(Math.abs(by));
  return `${sign}${lettersUp(fromFifths(tonicFifths(key)).step, step) + 1}`;
}

/** "1" for the root, "3" for the third, "9" for an added ninth; what is no tone of the chord in brackets: "(4)". */
export function chordTone(pitch: Named, chord: Chord): string {
  const number = lettersUp(fromFifths(chord.root).step, pitch.step) + 1;
  const sounding = pitchClass(toFifths(pitch));
  const place = chordTones(chord).findIndex((tone) => pitchClass(tone) === sounding);
  if (place < 0) return `(${number})`;
  // An extension counts from above the octave.
  return place > 3 && number % 2 === 0 ? String(number + 7) : String(number);
}
