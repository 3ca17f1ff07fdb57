import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { cheapestPath } from './cheapestPath';

const costOf = (
  path: readonly number[],
  own: readonly (readonly number[])[],
  change: (from: number, to: number, step: number) => number,
): number =>
  path.reduce((sum, state, i) => sum + own[i]![state]! + (i === 0 ? 0 : change(path[i - 1]!, state, i)), 0);

describe('the cheapest way', () => {
  it('is as cheap as the best of all ways', () => {
    const costs = fc.array(fc.array(fc.integer({ min: 0, max: 9 }), { minLength: 3, maxLength: 3 }), {
      minLength: 1,
      maxLength: 6,
    });
    fc.assert(
      fc.property(costs, fc.integer({ min: 0, max: 6 }), (own, each) => {
        const change = (from: number, to: number, step: number): number =>
          from === to ? 0 : each + ((from + 2 * to + step) % 3);
        const ways = own.reduce<number[][]>(
          (all) => all.flatMap((way) => [0, 1, 2].map((state) => [...way, state])),
          [[]],
        );
        const best = Math.min(...ways.map((way) => costOf(way, own, change)));
        expect(costOf(cheapestPath(own, change, each), own, change)).toBe(best);
        expect(costOf(cheapestPath(own, change), own, change)).toBe(best);
      }),
    );
  });
  it('stays where going over would cost the same', () =>
    expect(
      cheapestPath(
        [
          [0, 1],
          [1, 0],
        ],
        (from, to) => (from === to ? 0 : 1),
      ),
    ).toEqual([0, 0]));
  it('through nothing is none', () => expect(cheapestPath([], () => 0)).toEqual([]));
});
