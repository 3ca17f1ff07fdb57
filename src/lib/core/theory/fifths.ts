/**
 * Spelled pitch classes as places on the line of fifths: … B♭ −2, F −1, C 0, G 1, D 2 … Transposing by an interval is
 * then one addition, and the spelling comes out functional by itself: a major third is always four fifths up.
 */
import { STEPS, toMidi, type Pitch, type Step } from './pitch';

const ORDER: readonly Step[] = ['F', 'C', 'G', 'D', 'A', 'E', 'B'];

export type Fifths = number;

/** Place of a letter and alteration on the line of fifths; C is 0. */
export const toFifths = (p: Pick<Pitch, 'step' | 'alter'>): Fifths => ORDER.indexOf(p.step) - 1 + 7 * p.alter;

/** The letter and alteration at a place on the line of fifths. */
export function fromFifths(fifths: Fifths): Pick<Pitch, 'step' | 'alter'> {
  const shifted = fifths + 1;
  return { step: ORDER[((shifted % 7) + 7) % 7]!, alter: Math.floor(shifted / 7) };
}

/** Pitch class 0–11 (C = 0) of a place on the line of fifths. */
export const pitchClass = (fifths: Fifths): number => (((fifths * 7) % 12) + 12) % 12;

/** The pitch of a spelled pitch class at a MIDI number; the number must be of that class. */
export function spellMidi(midi: number, fifths: Fifths): Pitch {
  const { step, alter } = fromFifths(fifths);
  const natural = { step, alter: 0, octave: 0 };
  const octave = Math.round((midi - alter - toMidi(natural)) / 12);
  return { step, alter, octave };
}

/** The pitch nearest to a MIDI number among the octaves of a spelled pitch class; the lower one when two tie. */
export function nearestPitch(fifths: Fifths, midi: number): Pitch {
  const wanted = pitchClass(fifths);
  const up = (((wanted - midi) % 12) + 12) % 12;
  return spellMidi(up < 6 ? midi + up : midi + up - 12, fifths);
}

/** Letters from one pitch to another, signed: a third is 2. */
export const stepsBetween = (a: Pitch, b: Pitch): number =>
  (b.octave - a.octave) * 7 + STEPS.indexOf(b.step) - STEPS.indexOf(a.step);
