import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { keysLine } from '../test/keysLine';
import { STANDARD_FINGERINGS, standardFound } from '../test/standardFingerings';
import { RULES } from './cost';
import type { Finger } from './grips';
import { exampleOf, examplesOf, FEWEST_DECISIONS, NO_HOUSE_HAND, tasteOfHouse } from './houseHand';
import { learnTaste, type FingerExample } from './learnTaste';
import { fingerLine } from './solve';
import { FACTOR, HARD_RULES, habitsOf, NO_TASTE, TOUCH, type Taste } from './taste';

/** A teacher with a taste fingers lines; where the proposal is otherwise, her finger is an example. */
function examplesBy(taste: Taste, lines: readonly (readonly number[])[]): FingerExample[] {
  return lines.flatMap((keys) => {
    const { notes, settings } = keysLine(keys, 'right');
    const hers = fingerLine(notes, { ...settings, taste }).fingers;
    const proposed = fingerLine(notes, settings).fingers;
    return notes
      .filter((n) => hers.get(n.id) !== proposed.get(n.id))
      .map((n): FingerExample => ({ notes, settings, note: n.id, finger: hers.get(n.id)! }));
  });
}

const SHAPES = [
  [60, 61, 63, 65, 63, 61, 60, 58],
  [62, 66, 69, 66, 64, 61, 62, 69],
  [67, 70, 72, 75, 72, 70, 67, 63],
  [65, 63, 61, 60, 65, 68, 70, 72],
  [64, 68, 71, 68, 66, 63, 64, 59],
  [70, 67, 65, 63, 62, 58, 60, 65],
];
/** The same in several keys, which lie otherwise in black and white. */
const LINES = SHAPES.flatMap((keys) => [0, 1, 2, 3, 6].map((by) => keys.map((k) => k + by)));
const KEEPS_OFF: Taste = { factors: { weak: 2.2 }, touch: [0, 0, 0, 0, 0, 0, -0.9, 0.9, 0.9, 0] };

describe('a taste', () => {
  it('is learned from decided fingers, and then proposed', () => {
    const learned = learnTaste(examplesBy(KEEPS_OFF, LINES));
    const corrections = (taste: Taste): number =>
      examplesBy(KEEPS_OFF, LINES).filter(
        ({ notes, settings, note, finger }) =>
          fingerLine(notes, taste === NO_TASTE ? settings : { ...settings, taste }).fingers.get(note) !==
          finger,
      ).length;
    expect(corrections(NO_TASTE)).toBeGreaterThan(5);
    expect(corrections(learned)).toBeLessThan(corrections(NO_TASTE) * 0.6);
    expect(habitsOf(learned).map((h) => h.text)).toContain('you prefer 2 to 3 on black keys');
  });
  it('is nothing where nothing was decided, or where what was decided is what was proposed', () => {
    expect(learnTaste([])).toEqual(NO_TASTE);
    const { notes, settings } = keysLine([60, 62, 64, 65, 67], 'right');
    const learned = learnTaste([{ notes, settings, note: '0.0', finger: 1 }]);
    expect(habitsOf(learned)).toEqual([]);
  });
  it('law: stays within its bounds, and never makes cheaper what a hand cannot do', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.record({
            keys: fc.array(fc.integer({ min: 55, max: 79 }), { minLength: 3, maxLength: 8 }),
            at: fc.nat(7),
            finger: fc.integer({ min: 1, max: 5 }),
          }),
          { minLength: 1, maxLength: 12 },
        ),
        (decided) => {
          const { factors, touch } = learnTaste(
            decided.map(({ keys, at, finger }) => ({
              ...keysLine(keys, 'right'),
              note: `${at % keys.length}.0`,
              finger: finger as Finger,
            })),
          );
          for (const rule of RULES) {
            const factor = factors[rule] ?? 1;
            expect(factor).toBeGreaterThanOrEqual(HARD_RULES.has(rule) ? 1 : FACTOR.least);
            expect(factor).toBeLessThanOrEqual(FACTOR.most);
          }
          for (const t of touch) expect(Math.abs(t)).toBeLessThanOrEqual(TOUCH);
        },
      ),
      { numRuns: 8 },
    );
  });
  it('leaves standard fingerings standard', () => {
    const taste = learnTaste(examplesBy(KEEPS_OFF, LINES));
    for (const one of STANDARD_FINGERINGS)
      expect(one.fingers, one.name).toContain(standardFound(one, { taste }));
  });
});

describe('the house’s hand', () => {
  const learned: Taste = { factors: { pass: 0.5 }, touch: [0, 0, 0, 0, 0, 0, -0.8, 0.8, 0, 0] };
  const house = { ...NO_HOUSE_HAND, learned, decisions: FEWEST_DECISIONS };
  it('holds from some decisions on, where it is on, and as far as the teacher lets it', () => {
    expect(tasteOfHouse(house)).toEqual(learned);
    expect(tasteOfHouse({ ...house, decisions: FEWEST_DECISIONS - 1 })).toBeNull();
    expect(tasteOfHouse({ ...house, isOn: false })).toBeNull();
    expect(tasteOfHouse({ ...house, shares: { 'rule pass': 0 } })?.factors.pass).toBe(1);
    expect(tasteOfHouse({ ...house, shares: { 'rule pass': 0.5 } })?.factors.pass).toBe(0.75);
    expect(tasteOfHouse({ ...house, shares: { 'finger 3 black': 0 } })?.touch[7]).toBe(0);
  });
  it('keeps of each decision what is around it, and the decisions before it', () => {
    const { notes, settings } = keysLine(
      Array.from({ length: 60 }, (_, i) => 60 + (i % 5)),
      'right',
    );
    const hand = { notes, settings, fingering: fingerLine(notes, settings) };
    const stored = examplesOf(hand, [
      ['30.0', 2],
      ['31.0', 4],
      ['nowhere', 1],
    ]);
    expect(stored.map((e) => [e.note, e.finger, e.notes.length, e.locks])).toEqual([
      ['30.0', 2, 33, []],
      ['31.0', 4, 33, [['30.0', 2]]],
    ]);
    expect(exampleOf(stored[1]!).settings.locks.get('30.0')).toBe(2);
  });
});
