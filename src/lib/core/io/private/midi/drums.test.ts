import { describe, expect, it } from 'vitest';
import { idiomOf } from '../../../analysis/idiom';
import { feelOf } from '../../../counting/feel';
import { TICKS_PER_QUARTER as Q } from '../../../score/ticks';
import { bandFile, type BandPlayer } from '../../../test/bandFile';
import { drumsSwing } from './drums';
import { readMidi } from '../../midi/read';

const [KICK, SNARE, HAT, RIDE] = [36, 38, 42, 51];
const every = (count: number, strokes: readonly (readonly [number, number])[], length: number) =>
  Array.from({ length: count }, (_, i) =>
    strokes.map(([at, key]) => ({ onset: Math.round((i * length + at) * Q), key })),
  ).flat();
const inQuarters = (strokes: readonly { onset: number; key: number }[]) =>
  strokes.map(({ onset, key }) => [onset / Q, key] as const);
const players = (notes: BandPlayer['notes']): BandPlayer[] => [
  { name: 'Sax', program: 65, notes },
  {
    name: 'Bass',
    program: 33,
    notes: notes.filter((_, i) => i % 4 === 0).map(([at, l, k]) => [at, l, k - 36]),
  },
  {
    name: 'Piano',
    program: 0,
    notes: notes.filter((_, i) => i % 8 === 0).map(([at, , k]) => [at, 2, k - 12]),
  },
];

describe('drums', () => {
  const swing = every(
    16,
    [
      [0, RIDE],
      [1, RIDE],
      [1 + 2 / 3, RIDE],
      [1, SNARE],
    ],
    2,
  );
  it('swing where the timekeeper comes late, and not in a full triplet or in even eighths', () => {
    expect(drumsSwing(swing)).toBe(true);
    expect(
      drumsSwing(
        every(
          32,
          [
            [0, HAT],
            [1 / 3, HAT],
            [2 / 3, HAT],
          ],
          1,
        ),
      ),
    ).toBe(false);
    expect(
      drumsSwing(
        every(
          32,
          [
            [0, HAT],
            [0.5, HAT],
          ],
          1,
        ),
      ),
    ).toBe(false);
  });
  it('have swung eighths written even, with the word above', () => {
    const tune = Array.from({ length: 32 }, (_, i): readonly [number, number, number] =>
      i % 2 === 0 ? [i / 2, 2 / 3, 67 + (i % 5)] : [(i - 1) / 2 + 2 / 3, 1 / 3, 65 + (i % 5)],
    );
    const { score, warnings } = readMidi(
      bandFile({ players: players(tune), drums: inQuarters(swing), time: [4, 4] }),
    );
    expect(score.parts[0]!.notes.map((n) => n.onset / Q).filter((q) => (q * 2) % 1 !== 0)).toEqual([]);
    expect(feelOf(score)).toBe('swing');
    expect(warnings.join(' ')).toContain('swing');
  });
  it('tell a waltz, and three beats to a measure that no time signature names', () => {
    const waltz = every(
      16,
      [
        [0, KICK],
        [1, HAT],
        [2, HAT],
      ],
      3,
    );
    const tune = Array.from(
      { length: 16 },
      (_, i) =>
        [
          [3 * i, 2, 67 + (i % 4)],
          [3 * i + 2, 1, 65],
        ] as const,
    ).flat();
    const { score } = readMidi(bandFile({ players: players(tune), drums: inQuarters(waltz) }));
    expect(score.measures[0]!.time).toMatchObject({ beats: 3, beatType: 4 });
    expect(idiomOf(score).idiom).toBe('waltz');
  });
  it.each([
    [
      [0, 2, 4],
      [2, 2, 3],
    ],
    [
      [0, 3, 5],
      [3, 2, 2],
    ],
    [
      [0, 2, 5],
      [2, 3, 2],
    ],
  ])('that strike at %j of seven eighths group it %j', (at, groups) => {
    const strokes = every(
      8,
      at.map((p, i) => [p / 2, i === 0 ? KICK : SNARE] as const),
      3.5,
    );
    const tune = Array.from({ length: 8 }, (_, i) => [3.5 * i, 3, 67 + (i % 4)] as const);
    const { score } = readMidi(
      bandFile({ players: players(tune), drums: inQuarters(strokes), time: [7, 8] }),
    );
    expect(score.measures.map((m) => m.time.groups)).toEqual(score.measures.map(() => groups));
  });
  it('alone are no music', () => {
    expect(() => readMidi(bandFile({ players: [], drums: [[0, KICK]] }))).toThrow('percussion only');
  });
});
