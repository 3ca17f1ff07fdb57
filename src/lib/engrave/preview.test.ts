import { describe, expect, it } from 'vitest';
import { previewOf } from './preview';

const file = (text: string, name = 'a-melody.abc') => ({ name, bytes: new TextEncoder().encode(text) });
const three = file(
  'X:1\nL:1/4\nK:D\nV:1 name="Singer"\nV:2 name="Upper"\nV:3 clef=bass name="Lower"\n' +
    '[V:1] d e f g|a4|]\nw: one two three four five\n[V:2] f g a b|a4|]\n[V:3] D,4|D,4|]\n',
);

describe('a look at a file', () => {
  it('says what is in it; a piece without a title has the name of its file', () => {
    expect(previewOf(file('X:1\nM:3/4\nL:1/4\nQ:1/4=90\nK:G\nD|"G"G B d|"D7"A2 F|\n'))).toMatchObject({
      title: 'A melody',
      key: 'G major',
      time: { beats: 3, beatType: 4 },
      tempo: 90,
      measures: 2,
      notes: 6,
      chords: 2,
      pickup: true,
      warnings: [],
    });
  });
  it('proposes who plays what, and takes another choice', () => {
    const first = previewOf(three);
    expect(first.parts.map((p) => [p.name, p.hasWords])).toEqual([
      ['Singer', true],
      ['Upper', false],
      ['Lower', false],
    ]);
    expect(Object.values(first.choices.parts)).toEqual(['melody', 'right', 'left']);
    const without = previewOf(three, { parts: { P1: 'other', P9: 'melody' }, tune: [] });
    expect(without.choices.parts).toEqual({ P1: 'other', P2: 'right', P3: 'left' });
    expect(Object.keys(without.sheet.notes).length).toBeLessThan(Object.keys(first.sheet.notes).length);
  });
  it('throws one sentence for what is no music', () => {
    expect(() => previewOf(file('milk and eggs', 'list.txt'))).toThrow(
      /nothing in it could be read as music/,
    );
  });
});
