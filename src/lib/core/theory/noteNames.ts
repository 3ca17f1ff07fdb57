/**
 * What notes are called where this runs: C D E, do re mi, or with H and B. Said once when a thread or a page begins, as the language of
 * a process is: sentences about notes are made everywhere in the core, and a studio names them in one way. What is written to files and
 * read from them has letters always (parsePitch, keyCode, chordSymbol).
 */
import type { NoteNaming } from '../locale';

let naming: NoteNaming = 'letters';

export const nameNotesAs = (wanted: NoteNaming): void => void (naming = wanted);
export const noteNaming = (): NoteNaming => naming;

const SIGNS: Readonly<Record<number, string>> = { [-2]: '𝄫', [-1]: '♭', 0: '', 1: '♯', 2: '𝄪' };
const SOLFEGE: Readonly<Record<string, string>> = {
  C: 'do',
  D: 're',
  E: 'mi',
  F: 'fa',
  G: 'sol',
  A: 'la',
  B: 'si',
};

/** "F♯", "fa♯"; of B flat and B in German "B" and "H". */
export function nameOfNote(step: string, alter: number): string {
  const sign = SIGNS[alter] ?? '';
  if (naming === 'solfege') return `${SOLFEGE[step] ?? step}${sign}`;
  if (naming === 'german' && step === 'B') return alter === -1 ? 'B' : `H${sign}`;
  return `${step}${sign}`;
}
