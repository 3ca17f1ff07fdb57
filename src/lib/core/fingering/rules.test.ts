/**
 * Each rule of the cost by itself: two ways to finger the same keys that differ by what the rule is about, which of them a teacher
 * would take, and about how much the rule sets them apart. A weight that is changed much is noticed here.
 */
import { describe, expect, it } from 'vitest';
import { TICKS_PER_QUARTER as Q } from '../score/ticks';
import { keysLine } from '../test/keysLine';
import { costsOf, total } from './solve';
import { eventsOf, type Hand } from './events';
import { RULES, type CostModel, type Rule } from './cost';
import type { Finger, Grip } from './grips';
import { spansFor } from './private/spans';

const MODEL: CostModel = { spans: spansFor(14), reach: 14, steadiness: 1 };

/** The costs of fingers given as text, an event a word: "1 2 3" or "1-3-5 1". In order from the lowest key. */
function billed(
  hand: Hand,
  keys: readonly (number | readonly number[])[],
  fingers: string,
  model: Partial<CostModel> = {},
  /** Index of the event with which a phrase begins. */
  phrase?: number,
) {
  const { notes, settings } = keysLine(keys, hand, {
    resets: new Set(phrase === undefined ? [] : [(phrase * Q) / 2]),
  });
  const events = eventsOf(notes, settings);
  const path = fingers.split(' ').map((word): Grip => {
    const chord = word.split('-').map((f) => Number(f) as Finger);
    return (hand === 'right' ? chord : chord.reverse()) as unknown as Grip;
  });
  const costs = costsOf(events, path, { ...MODEL, ...model });
  return { all: total(costs), of: (rule: Rule): number => costs[RULES.indexOf(rule)]! };
}

interface Case {
  readonly rule: Rule;
  readonly says: string;
  readonly hand?: Hand;
  readonly keys: readonly (number | readonly number[])[];
  /** Preferred, and what it is preferred to. */
  readonly better: string;
  readonly worse: string;
  /** What the rule charges the second more than the first. */
  readonly by: number;
  readonly phrase?: number;
}

const C4 = 60;
const CASES: readonly Case[] = [
  { rule: 'weak', says: 'a strong finger before the fourth', keys: [C4], better: '3', worse: '4', by: 0.9 },
  { rule: 'weak', says: 'a strong finger before the fifth', keys: [C4], better: '2', worse: '5', by: 0.5 },
  {
    rule: 'black-thumb',
    says: 'the thumb keeps off a black key',
    keys: [61],
    better: '2',
    worse: '1',
    by: 1,
  },
  {
    rule: 'black-fifth',
    says: 'the little finger keeps off a black key',
    keys: [61],
    better: '3',
    worse: '5',
    by: 0.8,
  },
  {
    rule: 'black-thumb',
    says: 'least of all coming from a white key',
    keys: [62, 61],
    better: '3 2',
    worse: '2 1',
    by: 3,
  },
  { rule: 'black-thumb', says: 'nor going to one', keys: [63, 64], better: '2 3', worse: '1 2', by: 3 },
  {
    rule: 'black-fifth',
    says: 'nor the little finger',
    keys: [62, 63],
    better: '2 3',
    worse: '4 5',
    by: 2.3,
  },
  { rule: 'black-fifth', says: 'nor from it', keys: [63, 62], better: '3 2', worse: '5 4', by: 2.3 },
  { rule: 'three-four', says: '2 to 3 before 3 to 4', keys: [C4, 62], better: '2 3', worse: '3 4', by: 0.4 },
  {
    rule: 'four-on-black',
    says: '3 to 4 with the fourth on a black key',
    keys: [C4, 61],
    better: '2 3',
    worse: '3 4',
    by: 1,
  },
  {
    rule: 'three-four-five',
    says: '2 3 4 before 3 4 5',
    keys: [C4, 62, 64],
    better: '2 3 4',
    worse: '3 4 5',
    by: 0.5,
  },
  {
    rule: 'pass',
    says: 'the thumb passes under the third finger before the second',
    keys: [64, 65],
    better: '3 1',
    worse: '2 1',
    by: 0.7,
  },
  {
    rule: 'pass',
    says: 'and hardly ever under the fifth',
    keys: [64, 65],
    better: '3 1',
    worse: '5 1',
    by: 6.5,
  },
  {
    rule: 'pass',
    says: 'from a black key to a white one it passes most easily',
    keys: [66, 67],
    better: '3 1',
    worse: '2 1',
    by: 0.7,
  },
  {
    rule: 'pass',
    says: 'onto a black key it passes badly',
    keys: [65, 66],
    better: '1 2',
    worse: '3 1',
    by: 7.5,
  },
  {
    rule: 'cross',
    says: 'fingers do not cross but over the thumb',
    keys: [C4, 62],
    better: '3 4',
    worse: '4 3',
    by: 18,
  },
  {
    rule: 'same-finger',
    says: 'one finger cannot join two keys',
    keys: [C4, 62],
    better: '1 2',
    worse: '2 2',
    by: 13,
  },
  {
    rule: 'same-finger',
    says: 'the further the worse, up to an octave',
    keys: [C4, 72],
    better: '1 5',
    worse: '5 5',
    by: 22,
  },
  {
    rule: 'change-on-repeat',
    says: 'a key struck again keeps its finger, even where a phrase begins with it',
    keys: [C4, C4],
    better: '3 3',
    worse: '3 2',
    by: 1.8,
    phrase: 1,
  },
  { rule: 'cramped', says: 'fingers do not bunch', keys: [C4, 62], better: '1 2', worse: '1 5', by: 5 },
  { rule: 'cramped', says: 'nor without the thumb', keys: [C4, 61], better: '2 3', worse: '2 4', by: 4 },
  {
    rule: 'wide',
    says: 'they do not spread beyond what is relaxed',
    keys: [C4, 67],
    better: '1 5',
    worse: '1 2',
    by: 2,
  },
  {
    rule: 'stretch',
    says: 'nor beyond what is comfortable',
    keys: [C4, 70],
    better: '1 5',
    worse: '1 2',
    by: 4,
  },
  {
    rule: 'stretch',
    says: 'a third between 3 and 4 is a stretch',
    keys: [C4, 63],
    better: '2 3',
    worse: '3 4',
    by: 2,
  },
  {
    rule: 'move',
    says: 'one finger on two keys apart is a move of the hand',
    keys: [C4, 64, 67],
    better: '1 3 5',
    worse: '1 2 1',
    by: 1.6,
  },
  {
    rule: 'far-move',
    says: 'a change of position costs by how far it goes',
    keys: [C4, 64, 72],
    better: '1 2 5',
    worse: '1 3 2',
    by: 1.4,
  },
  {
    rule: 'move',
    says: 'a key that comes back keeps its finger',
    keys: [C4, 64, C4],
    better: '1 3 1',
    worse: '1 3 5',
    by: 1.9,
  },
  {
    rule: 'chord-shape',
    says: 'a triad has its shape',
    keys: [[C4, 64, 67]],
    better: '1-3-5',
    worse: '1-2-4',
    by: 3.2,
  },
  {
    rule: 'chord-shape',
    says: 'fingers lie in the order of the keys',
    keys: [[C4, 64]],
    better: '1-3',
    worse: '3-1',
    by: 32.4,
  },
  {
    rule: 'stretch',
    says: 'a chord within the fingers’ span',
    keys: [[C4, 72]],
    better: '1-5',
    worse: '1-2',
    by: 32,
  },
  {
    rule: 'far-move',
    says: 'from chord to chord the nearer one',
    keys: [
      [C4, 64, 67],
      [65, 69, 72],
    ],
    better: '1-3-5 1-3-5',
    worse: '1-3-5 1-3-5',
    by: 0,
  },
  {
    rule: 'change-on-repeat',
    says: 'and so does a chord',
    keys: [
      [C4, 64],
      [C4, 64],
    ],
    better: '1-3 1-3',
    worse: '1-3 2-4',
    by: 3.6,
    phrase: 1,
  },
];

describe('the rules', () => {
  it.each(CASES)('$rule: $says', ({ rule, hand = 'right', keys, better, worse, by, phrase }) => {
    const [one, other] = [billed(hand, keys, better, {}, phrase), billed(hand, keys, worse, {}, phrase)];
    if (by > 0) expect(one.all).toBeLessThan(other.all);
    expect(other.of(rule) - one.of(rule)).toBeCloseTo(by, 1);
  });
  it('hold in the left hand as in a mirror', () => {
    for (const { rule, keys, better, worse, by, phrase } of CASES) {
      const mirrored = keys.map((key) =>
        typeof key === 'number' ? mirror(key) : [...key].map(mirror).sort((a, b) => a - b),
      );
      const turned = (fingers: string): string =>
        fingers
          .split(' ')
          .map((word) => word.split('-').reverse().join('-'))
          .join(' ');
      const [one, other] = [
        billed('left', mirrored, turned(better), {}, phrase),
        billed('left', mirrored, turned(worse), {}, phrase),
      ];
      expect(other.of(rule) - one.of(rule)).toBeCloseTo(by, 1);
    }
  });
  it('a level that keeps its position charges moves by as much more', () => {
    const moves = (steadiness: number): number => {
      const bill = billed('right', [C4, 64, 62], '2 3 2', { steadiness });
      return bill.of('move');
    };
    expect(moves(3) / moves(1)).toBeCloseTo(3, 5);
    const far = (steadiness: number): number =>
      billed('right', [C4, 64, 72], '1 3 2', { steadiness }).of('far-move');
    expect(far(2) / far(1)).toBeCloseTo(2, 5);
    const passing = (steadiness: number): number =>
      billed('right', [64, 65], '3 1', { steadiness }).of('move');
    expect([passing(1), passing(3)]).toEqual([0, 5]);
  });
  it('from a black key the thumb passes under to a white one more easily', () => {
    const passing = (keys: readonly number[]): number => billed('right', keys, '3 1').of('pass');
    expect(passing([64, 65])).toBeCloseTo(3.5, 5);
    expect(passing([66, 67])).toBeCloseTo(2.7, 5);
  });
  it('a key that is held keeps its finger', () => {
    const { notes, settings } = keysLine([C4, 67, 65], 'right');
    const [held, ...moving] = notes;
    const events = eventsOf([{ ...held!, duration: 10 * held!.duration }, ...moving], settings);
    const letGo = (path: readonly Grip[]): number => costsOf(events, path, MODEL)[RULES.indexOf('let-go')]!;
    expect(letGo([[1], [1, 5], [1, 4]] as never)).toBe(0);
    expect(letGo([[1], [2, 5], [2, 4]] as never)).toBe(25);
  });
  it('in a chord of three, thumb and little finger lie on black keys more easily than alone', () => {
    expect(billed('right', [[61, 65, 68]], '1-3-5').of('black-thumb')).toBeCloseTo(0.4, 5);
    expect(billed('right', [[C4, 63, 68]], '1-2-5').of('black-fifth')).toBeCloseTo(0.3, 5);
  });
  it('fingers that the same figure has elsewhere, and those of the books, are departed from at a price', () => {
    const usual = new Map<string, Finger>([['0.0', 2]]);
    expect(billed('right', [C4], '3', { usual }).of('same-figure')).toBe(4);
    expect(billed('right', [C4], '2', { usual }).of('same-figure')).toBe(0);
    const conventions = new Map([['0.0', { fingers: [1 as Finger], weight: 2.5 }]]);
    expect(billed('right', [61], '3', { conventions: conventions as never }).of('convention')).toBe(2.5);
    // Where books put the thumb on a black key it lies there already.
    expect(billed('right', [61], '1', { conventions: conventions as never }).of('black-thumb')).toBe(0);
  });
});

/** White and black keys lie alike to both sides of D. */
function mirror(midi: number): number {
  return 2 * 62 - midi;
}
