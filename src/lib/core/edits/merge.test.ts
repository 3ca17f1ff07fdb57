import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { merged, mergedSet } from './merge';

describe('two changes of one thing', () => {
  const was = { name: 'Duo', day: 1, note: 'soft' };
  it('are both kept where they touch different fields', () => {
    expect(merged(was, { ...was, day: 2 }, { ...was, name: 'Trio' })).toEqual({
      value: { name: 'Trio', day: 2, note: 'soft' },
      conflicts: [],
    });
  });
  it('conflict in a field that both touched, and nothing is changed there', () => {
    expect(merged(was, { ...was, note: 'loud' }, { note: 'slow', day: 3 })).toEqual({
      value: { name: 'Duo', day: 3, note: 'loud' },
      conflicts: ['note'],
    });
  });
  it('that want the same do not conflict', () => {
    expect(merged(was, { ...was, note: 'loud' }, { note: 'loud' }).conflicts).toEqual([]);
  });
  it('are taken where it is not said what they were made from', () => {
    expect(merged({}, { ...was, note: 'loud' }, { note: 'slow' }).value.note).toBe('slow');
  });
  it('hold lists and what is not there, by content', () => {
    const now: { week: number[] | null } = { week: [1, 2] };
    expect(merged({ week: [1, 2] }, now, { week: null }).value.week).toBeNull();
    expect(merged<typeof now>({ week: null }, now, { week: [3] }).conflicts).toEqual(['week']);
  });

  const record = fc.record({ a: fc.nat(3), b: fc.nat(3), c: fc.nat(3) });
  it('law: without another change, what is wanted is what is there', () => {
    fc.assert(
      fc.property(record, record, (now, wanted) => {
        expect(merged(now, now, wanted)).toEqual({ value: wanted, conflicts: [] });
      }),
    );
  });
  it('law: a change that changes nothing leaves everything as it is now', () => {
    fc.assert(
      fc.property(record, record, (before, now) => {
        expect(merged(before, now, before)).toEqual({ value: now, conflicts: [] });
      }),
    );
  });
  it('law: nothing of the other change is lost, in whichever order they come', () => {
    fc.assert(
      fc.property(record, record, record, (before, one, other) => {
        const { value, conflicts } = merged(before, one, other);
        for (const key of ['a', 'b', 'c'] as const)
          if (one[key] !== before[key]) expect(value[key]).toBe(one[key]);
        expect([...conflicts].sort()).toEqual([...merged(before, other, one).conflicts].sort());
      }),
    );
  });
});

describe('two changes of one set', () => {
  it('keep who was added and who was taken out by either', () => {
    expect(mergedSet(['a', 'b'], ['a', 'b', 'c'], ['b', 'd'])).toEqual(['b', 'c', 'd']);
    expect(mergedSet(['a', 'b'], ['a'], ['a', 'b'])).toEqual(['a']);
    expect(mergedSet(['a'], ['a', 'b'], ['a', 'b'])).toEqual(['a', 'b']);
  });
});
