import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { chunkId } from './chunkId';
import { proposedPlan, type Plan } from './plan';
import { edited, type PlanEdit } from './planEdits';
import { mergePlans } from './planMerge';
import { MUSIC } from '../test/lessonPiece';

const PLAN: Plan = {
  method: 'front to back',
  chunks: ['m0 m1', 'm2 m3', 'm4 m5', 'm6 m7'].map((ends) => {
    const [from, to] = ends.split(' ') as [string, string];
    return { from, to, name: null, steps: [{ id: 'hear', name: null }] };
  }),
};
const [A, B, C, D] = PLAN.chunks.map((c) => chunkId(c.from, c.to)) as [string, string, string, string];
const after = (edit: PlanEdit, of = PLAN): Plan => {
  const change = edited(of, edit, MUSIC);
  if ('refused' in change) throw new Error(change.refused);
  return change.plan;
};
const both = (one: PlanEdit, other: PlanEdit) => mergePlans(PLAN, after(one), after(other));
const chunksOf = (made: ReturnType<typeof mergePlans>): string[] =>
  'plan' in made ? made.plan.chunks.map((c) => chunkId(c.from, c.to)) : [...made.conflicts];

describe('two changes of one plan', () => {
  it('drop two chunks by what they are, not by their places', () => {
    expect(chunksOf(both({ do: 'drop', chunk: A }, { do: 'drop', chunk: C }))).toEqual([B, D]);
  });
  it('keep a name here and steps there, also of the same chunk', () => {
    const made = both(
      { do: 'name', chunk: B, name: 'The climb' },
      { do: 'steps', chunk: B, steps: [{ id: 'both', name: null }] },
    );
    expect('plan' in made && made.plan.chunks[1]).toMatchObject({
      name: 'The climb',
      steps: [{ id: 'both' }],
    });
  });
  it('conflict where both change the same thing of a chunk, or one drops what the other changes', () => {
    const name = (text: string): PlanEdit => ({ do: 'name', chunk: B, name: text });
    expect(both(name('The climb'), name('The hill'))).toEqual({ conflicts: [B] });
    expect(both(name('The climb'), name('The climb'))).toHaveProperty('plan');
    expect(both(name('The climb'), { do: 'drop', chunk: B })).toEqual({ conflicts: [B] });
    expect(both({ do: 'drop', chunk: B }, name('The climb'))).toEqual({ conflicts: [B] });
  });
  it('move one chunk here and add another there', () => {
    const made = both({ do: 'move', chunk: D, to: 0 }, { do: 'add', at: 1, from: 'm8', to: 'm9' });
    expect(chunksOf(made)).toEqual([D, A, 'm8..m9', B, C]);
    expect(both({ do: 'move', chunk: D, to: 0 }, { do: 'move', chunk: A, to: 2 })).toEqual({
      conflicts: ['order'],
    });
  });
  it('take another method here and keep a name that was given there', () => {
    const named = after({ do: 'name', chunk: A, name: 'Door' });
    const made = mergePlans(PLAN, named, { ...PLAN, method: 'hardest first' });
    expect('plan' in made && made.plan).toMatchObject({
      method: 'hardest first',
      chunks: [{ name: 'Door' }, {}, {}, {}],
    });
  });

  const plan = proposedPlan(MUSIC, 'front to back');
  const edits = fc.array(
    fc.oneof(
      fc.record({ do: fc.constant('move' as const), chunk: fc.nat(5), to: fc.nat(5) }),
      fc.record({ do: fc.constant('drop' as const), chunk: fc.nat(5) }),
      fc.record({ do: fc.constant('name' as const), chunk: fc.nat(5), name: fc.constantFrom('x', 'y') }),
      fc.record({
        do: fc.constant('split' as const),
        chunk: fc.nat(5),
        before: fc.constantFrom(...MUSIC.ids),
      }),
    ),
    { maxLength: 4 },
  );
  const changed = (list: readonly { chunk: number }[]): Plan =>
    list.reduce<Plan>((now, { chunk, ...edit }) => {
      const at = now.chunks[chunk % now.chunks.length];
      if (!at) return now;
      const change = edited(now, { ...edit, chunk: chunkId(at.from, at.to) } as PlanEdit, MUSIC);
      return 'plan' in change ? change.plan : now;
    }, plan);
  it('law: one change alone is taken as it is, and no change changes nothing', () => {
    fc.assert(
      fc.property(edits, (list) => {
        const made = changed(list);
        expect(mergePlans(plan, plan, made)).toEqual({ plan: made });
        expect(mergePlans(plan, made, plan)).toEqual({ plan: made });
      }),
    );
  });
  it('law: whoever comes first, the same chunks are there with the same names, or both orders conflict', () => {
    const named = (made: ReturnType<typeof mergePlans>): unknown =>
      'plan' in made
        ? made.plan.chunks.map((c) => `${chunkId(c.from, c.to)} ${c.name}`).sort()
        : [...made.conflicts].sort();
    fc.assert(
      fc.property(edits, edits, (one, other) => {
        const [a, b] = [changed(one), changed(other)];
        expect(named(mergePlans(plan, a, b))).toEqual(named(mergePlans(plan, b, a)));
      }),
    );
  });
});
