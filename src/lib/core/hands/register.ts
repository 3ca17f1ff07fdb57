/** How low an interval stays clear, and what a keyboard holds. Numbers from the musical rules, MIDI. */

/** Lowest clear MIDI number of the lower note, by interval in semitones (1 minor second … 12 octave). */
const LOWEST_CLEAR: Readonly<Record<number, number>> = {
  1: 51, // E♭3
  2: 51,
  3: 48, // C3
  4: 46, // B♭2
  5: 46,
  6: 46,
  7: 34, // B♭1
  8: 41, // F2
  9: 41,
  10: 41,
  11: 41,
  12: 0,
  15: 34,
  16: 34,
};

/** Whether every interval between neighbours of a chord is clear where it stands. MIDI numbers, rising. */
export const isClear = (chord: readonly number[]): boolean =>
  chord.slice(1).every((upper, i) => chord[i]! >= (LOWEST_CLEAR[upper - chord[i]!] ?? 0));

export const KEYBOARDS = {
  49: { low: 36, high: 84, name: '49 keys, C2 to C6' },
  61: { low: 36, high: 96, name: '61 keys, C2 to C7' },
  76: { low: 28, high: 103, name: '76 keys, E1 to G7' },
  88: { low: 21, high: 108, name: '88 keys, A0 to C8' },
} as const;

/** Semitones that a hand holds whose widest white-key interval is a seventh (7) to a tenth (10). */
export const REACH_SEMITONES = { 7: 10, 8: 12, 9: 14, 10: 16 } as const;
