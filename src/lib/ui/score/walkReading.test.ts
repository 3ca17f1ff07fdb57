import type { Reading } from '$core/version/announce';
import { describe, expect, it } from 'vitest';
import { walkReading } from './walkReading';

const at = (id: string, onset: number, staff: number, midi: number): Reading => ({
  id,
  onset,
  staff,
  midi,
  text: id,
});
const readings = [
  at('l0', 0, 2, 48),
  at('l1', 0, 2, 55),
  at('r0', 0, 1, 72),
  at('r1', 4, 1, 74),
  at('l2', 8, 2, 50),
];
const to = (from: string | undefined, ...moves: Parameters<typeof walkReading>[2][]) =>
  moves.reduce<string | undefined>((id, move) => walkReading(readings, id, move)?.id, from);

describe('walking through what is read', () => {
  it('begins with the right hand', () => expect(to(undefined, 'next')).toBe('r0'));
  it('goes by onset within a hand, to the top of a chord', () => {
    expect(to('r0', 'next')).toBe('r1');
    expect(to('r1', 'next')).toBe('r1');
    expect(to('l2', 'previous')).toBe('l1');
  });
  it('goes through a chord and to the other hand', () => {
    expect(to('r0', 'down')).toBe('l1');
    expect(to('r0', 'down', 'down')).toBe('l0');
    expect(to('l0', 'up', 'up')).toBe('r0');
    expect(to('r1', 'down')).toBe('l1');
  });
});
