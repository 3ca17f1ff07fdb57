import { describe, expect, it } from 'vitest';
import { proposedGrade } from './grade';
import type { JudgedMeasure, Take } from './judge';

const note = {} as JudgedMeasure['notes'][number];
/** A take of eight measures of four notes each, in everything as good as can be but for what is said. */
const take = ({ extra = 0, ...change }: Partial<Take> & { readonly extra?: number }): Take => ({
  passes: [],
  played: [0, 1, 2, 3, 4, 5, 6, 7],
  measures: Array.from({ length: 8 }, (_, measure) => ({
    measure,
    notes: [note, note, note, note],
    extra: measure === 0 ? Array.from({ length: extra }, () => ({ midi: 60, at: 0, measure })) : [],
    right: 1,
    times: 1,
    stood: 0,
  })),
  isWhole: true,
  right: 1,
  tempo: 100,
  unevenness: 0,
  stops: 0,
  ...change,
});

describe('the grade that is proposed', () => {
  it.each<[string, Parameters<typeof take>[0], number]>([
    ['everything right, even, in tempo', {}, 4],
    ['98 of 100 notes', { right: 0.98 }, 4],
    ['97 of 100 notes', { right: 0.97 }, 3],
    ['92 of 100 notes', { right: 0.92 }, 2],
    ['74 of 100 notes', { right: 0.74 }, 1],
    ['keys too many count like notes that are not right', { extra: 2 }, 3],
    ['many keys too many', { extra: 8 }, 2],
    ['one stop', { stops: 1 }, 3],
    ['two stops', { stops: 2 }, 2],
    ['four stops', { stops: 4 }, 1],
    ['97 of 100 of the tempo', { tempo: 97 }, 4],
    ['95 of 100 of the tempo', { tempo: 95 }, 3],
    ['85 of 100 of the tempo', { tempo: 85 }, 2],
    ['half the tempo', { tempo: 50 }, 1],
    ['a little uneven', { unevenness: 0.15 }, 3],
    ['uneven', { unevenness: 0.3 }, 2],
    ['broken off', { isWhole: false }, 1],
  ])('%s', (_says, change, grade) => {
    expect(proposedGrade(take(change), 100)?.grade).toBe(grade);
  });
  it('of a long take allows as many stops as it is longer', () => {
    const long = take({ stops: 2, played: Array.from({ length: 16 }, (_, i) => i) });
    expect(proposedGrade(long, 100)?.grade).toBe(3);
  });
  it('says what share of the tempo was reached', () => {
    expect(proposedGrade(take({ tempo: 80 }), 100)?.tempo).toBeCloseTo(0.8);
    const { tempo: _tempo, ...unknown } = take({});
    expect(proposedGrade(unknown, 100)).toEqual({ grade: 4, right: 1 });
  });
});
