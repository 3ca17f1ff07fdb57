/** Scores at random, for laws: any metre, one or two staves, any rhythm down to thirty-seconds and tuplets, chords and leaps. */
import fc from 'fast-check';
import type { Score } from '../score/score';
import { scoreFrom } from './shorthand';

const METRES = [
  [4, 4],
  [3, 4],
  [2, 4],
  [6, 8],
  [12, 8],
  [9, 8],
  [2, 2],
  [3, 8],
  [5, 4],
  [7, 8],
  [3, 2],
] as const;
const KEYS = ['C', 'G', 'D', 'E', 'B', 'F', 'Eb', 'Ab', 'Db', 'Am', 'F#m', 'Cm', 'Bbm'] as const;
const NAMES = ['C', 'Db', 'D', 'Eb', 'E', 'F', 'F#', 'G', 'Ab', 'A', 'Bb', 'B'] as const;
const CHORDS = ['C', 'Dm', 'G7', 'Am/C', 'F#dim', 'Bb', 'E7/G#', 'Fmaj7', 'Csus4', 'Ebm7', 'A7b9'] as const;
/** Quarters divided, in eighths of a quarter and less. */
const CELLS = [
  [1],
  [0.5, 0.5],
  [0.25, 0.25, 0.5],
  [0.75, 0.25],
  [0.25, 0.25, 0.25, 0.25],
  [1 / 3, 1 / 3, 1 / 3],
  [2 / 3, 1 / 3],
  [0.2, 0.2, 0.2, 0.2, 0.2],
  [0.125, 0.125, 0.25, 0.5],
] as const;

const pitch = (midi: number): string => `${NAMES[midi % 12]}${Math.floor(midi / 12) - 1}`;

/** What one hand plays in a measure of so many quarters, from a list of random numbers. */
function measureText(
  quarters: number,
  plain: boolean,
  low: number,
  high: number,
  dice: () => number,
): string {
  const out: string[] = [];
  let left = quarters;
  let midi = Math.floor((low + high) / 2);
  const note = (value: number): void => {
    const step = dice() < 0.75 ? Math.floor(dice() * 5) - 2 : Math.floor(dice() * 25) - 12;
    midi = Math.min(high, Math.max(low, midi + step));
    const chord = new Set([midi]);
    const size = dice() < 0.6 ? 1 : 1 + Math.floor(dice() * 4);
    while (chord.size < size) chord.add(Math.max(24, midi - 2 - Math.floor(dice() * 15)));
    const keys = [...chord].sort((a, b) => a - b).map(pitch);
    out.push(`${dice() < 0.07 ? 'r' : keys.length === 1 ? keys[0] : `[${keys.join(' ')}]`}:${value}`);
  };
  while (left > 1e-6) {
    if (left >= 2 && dice() < 0.3) {
      for (const value of dice() < 0.4 ? [1.5, 0.5] : [2]) note(value);
      left -= 2;
    } else if (left >= 1) {
      const cell = CELLS[Math.floor(dice() * CELLS.length)]!;
      for (const value of plain && cell.some((d) => (d * 8) % 1 !== 0) ? [0.5, 0.5] : cell) note(value);
      left -= 1;
    } else {
      note(Math.min(left, 0.5));
      left -= 0.5;
    }
  }
  return out.join(' ');
}

/** Any score of four to eight measures; with two staves, or with one and chord symbols. */
export const anyScore: fc.Arbitrary<Score> = fc
  .record({
    metre: fc.constantFrom(...METRES),
    key: fc.constantFrom(...KEYS),
    measures: fc.integer({ min: 4, max: 8 }),
    tempo: fc.integer({ min: 56, max: 160 }),
    twoStaves: fc.boolean(),
    symbols: fc.boolean(),
    seed: fc.integer({ min: 1, max: 2 ** 30 }),
  })
  .map(({ metre: [beats, beatType], key, measures, tempo, twoStaves, symbols, seed }) => {
    let state = seed;
    const dice = (): number => {
      // A xorshift generator: short, and the same everywhere.
      state ^= state << 13;
      state ^= state >>> 17;
      state ^= state << 5;
      return (state >>> 0) / 2 ** 32;
    };
    const quarters = (beats * 4) / beatType;
    const hand = (low: number, high: number): string =>
      Array.from({ length: measures }, () => measureText(quarters, beatType === 8, low, high, dice)).join(
        ' | ',
      );
    const right = hand(55, 88);
    const chords = Array.from({ length: measures }, () =>
      Array.from({ length: dice() < 0.6 ? 1 : 2 }, () => CHORDS[Math.floor(dice() * CHORDS.length)]).join(
        ' ',
      ),
    ).join(' | ');
    return scoreFrom({
      key,
      time: { beats, beatType },
      tempo,
      right,
      ...(twoStaves ? { left: hand(33, 62) } : {}),
      ...(symbols || !twoStaves ? { chords } : {}),
    });
  });
