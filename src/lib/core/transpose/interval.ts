import { STEPS, toMidi, type Pitch } from '../theory/pitch';

/** An interval by its letters and semitones, both signed: a minor third down is {diatonic: −2, chromatic: −3}. */
export interface Interval {
  readonly diatonic: number;
  readonly chromatic: number;
}

/** A pitch moved by an interval: the letters decide the letter, the semitones the accidental. */
export function transposeByInterval(pitch: Pitch, { diatonic, chromatic }: Interval): Pitch {
  if (diatonic === 0 && chromatic === 0) return pitch;
  const position = pitch.octave * 7 + STEPS.indexOf(pitch.step) + diatonic;
  const natural = { step: STEPS[((position % 7) + 7) % 7]!, alter: 0, octave: Math.floor(position / 7) };
  return { ...natural, alter: toMidi(pitch) + chromatic - toMidi(natural) };
}
