import { nameOfNote } from './noteNames';

/** A written pitch: letter, alteration in semitones (−1 flat, +1 sharp) and scientific octave (C4 = middle C). */
export interface Pitch {
  readonly step: Step;
  readonly alter: number;
  readonly octave: number;
}

export type Step = 'C' | 'D' | 'E' | 'F' | 'G' | 'A' | 'B';

/** The seven letters in rising order from C. */
export const STEPS: readonly Step[] = ['C', 'D', 'E', 'F', 'G', 'A', 'B'];

const SEMITONES: Record<Step, number> = { C: 0, D: 2, E: 4, F: 5, G: 7, A: 9, B: 11 };

/** MIDI number of a pitch; C4 is 60. */
export const toMidi = (p: Pitch): number => 12 * (p.octave + 1) + SEMITONES[p.step] + p.alter;

/** Position of the letter on the staff, counted in letters from C0: neighbours differ by one whatever their accidentals. */
export const staffPosition = (p: Pitch): number => p.octave * 7 + STEPS.indexOf(p.step);

/** The letter that lies `by` letters above (or below), in its octave; the accidental is for the asker to find. */
export function letterAt(p: Pick<Pitch, 'step' | 'octave'>, by: number): Pick<Pitch, 'step' | 'octave'> {
  const place = p.octave * 7 + STEPS.indexOf(p.step) + by;
  return { step: STEPS[((place % 7) + 7) % 7]!, octave: Math.floor(place / 7) };
}

export const isBlackKey = (midi: number): boolean => [1, 3, 6, 8, 10].includes(((midi % 12) + 12) % 12);

/** Which keys of a shape are black, from the lowest up: "white, black, white", "all black keys"; empty where none is. */
export function blackKeyShape(keys: readonly number[]): string {
  const black = keys.filter(isBlackKey).length;
  if (black === 0) return '';
  if (black === keys.length) return 'all black keys';
  return keys.map((key) => (isBlackKey(key) ? 'black' : 'white')).join(', ');
}

const ACCIDENTAL_TEXT: Record<number, string> = { [-2]: '𝄫', [-1]: '♭', 0: '', 1: '♯', 2: '𝄪' };

/** The accidental as a musician writes it: ♭, ♯, 𝄫, 𝄪 or nothing. */
export const accidentalText = (alter: number): string => ACCIDENTAL_TEXT[alter] ?? '';

/** "B♭3", as notes are called where this runs. */
export const pitchName = (p: Pitch): string => `${nameOfNote(p.step, p.alter)}${p.octave}`;

/** "B♭3" in letters always: what parsePitch reads. */
export const pitchLetters = (p: Pitch): string => `${p.step}${accidentalText(p.alter)}${p.octave}`;

/** Reads "B♭3", "F#5", "Bb2"; undefined for anything else. */
export function parsePitch(text: string): Pitch | undefined {
  const match = /^([A-G])([#♯b♭]?)(\d)$/.exec(text.trim());
  if (!match) return undefined;
  const alter = match[2] === '' ? 0 : /[#♯]/.test(match[2]!) ? 1 : -1;
  return { step: match[1] as Step, alter, octave: Number(match[3]) };
}

/** "B♭" */
export const pitchClassName = (p: Pick<Pitch, 'step' | 'alter'>): string => nameOfNote(p.step, p.alter);
