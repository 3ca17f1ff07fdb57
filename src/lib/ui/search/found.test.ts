import { describe, expect, it } from 'vitest';
import { groupsOf, sought } from './found';

const groups = groupsOf({
  students: [
    { id: 's1', name: 'Berit' },
    { id: 's2', name: 'Robert' },
  ],
  classes: [{ id: 'c', name: 'Saturday four' }],
  pieces: [{ id: 'p', title: 'Kite Weather', composer: 'Ada Quill' }],
  versions: [{ id: 'v', name: 'Kite Weather: Level 2' }],
});
const names = (text: string) => sought(groups, text).flatMap(({ entries }) => entries.map((e) => e.name));

describe('the search', () => {
  it('offers actions and pages before anything is sought', () => {
    expect(names('')).toContain('Add a piece');
    expect(names('')).toContain('Today');
    expect(names('')).not.toContain('Berit');
  });
  it('finds by every word, what begins with it first', () => {
    expect(names('ber')).toEqual(['Berit', 'Robert', 'Start lesson: Berit', 'Start lesson: Robert']);
    expect(names('kite level')).toEqual(['Kite Weather: Level 2']);
    expect(names('quill')).toEqual(['Kite Weather']);
    expect(names('students ber')).toContain('Berit');
    expect(names('zzz')).toEqual([]);
  });
});
