import { describe, expect, it } from 'vitest';
import { scoreFrom } from '../../test/shorthand';
import { foldedPath, formOf, timesOf } from '../form';
import { sectionsWorthNaming } from './loops';

const time = { beats: 4, beatType: 4 };
const block = (keys: string): string[] => keys.split(' ').map((k) => `${k}:2 ${k}:1 r:1`);
const A = block('C4 D4 E4 F4');
const B = block('G4 A4 B4 C5');
const tail = [
  'E5:1 D5:1 C5:1 B4:1',
  'A4:2 F4:2',
  'G4:1 F4:1 E4:1 D4:1',
  'C4:4',
  'E4:1 F4:3',
  'D4:3 C4:1',
  'B3:2 D4:2',
  'C4:4',
];
const piece = (measures: readonly string[]) => scoreFrom({ key: 'C', time, right: measures.join(' | ') });
const times = (n: number, measures: readonly string[]): string[] =>
  Array.from({ length: n }, () => measures).flat();

describe('blocks that go round', () => {
  const form = formOf(piece([...times(10, A), ...tail]));
  it('are one section', () => {
    expect(form.sections.map((s) => [s.from, s.to])).toEqual([
      [0, 39],
      [40, 47],
    ]);
  });
  it('are four stones and one that says how often', () => {
    const path = foldedPath(form);
    expect(path.slice(0, 5).map((item) => item.kind)).toEqual([
      'measure',
      'measure',
      'measure',
      'measure',
      'again',
    ]);
    const again = path[4]!;
    if (again.kind !== 'again') throw new Error('not folded');
    expect(again).toMatchObject({ from: 4, to: 39, as: 0, length: 4 });
    expect(timesOf(again)).toBe(9);
    expect(path).toHaveLength(5 + tail.length);
  });
  it('go round in whole blocks: what is begun and not ended is not folded into them', () => {
    const { sections: _, ...rest } = form;
    const path = foldedPath({
      ...rest,
      sections: [{ ...form.sections[0]!, to: 9 }],
      firstSeen: [0, 1, 2, 3, 0, 1, 2, 3, 0, 9],
    });
    expect(path.map((item) => (item.kind === 'again' ? [item.from, item.to] : item.measure))).toEqual([
      0,
      1,
      2,
      3,
      [4, 7],
      8,
      9,
    ]);
  });
  it('two verses are two sections all the same', () => {
    const verses = formOf(piece([...A, ...B, ...A, ...B]));
    expect(verses.sections.length).toBeGreaterThan(1);
  });
});

describe('sections worth naming', () => {
  const blocks = (...letters: string[]) => {
    let at = 0;
    return letters.map((text) => {
      const length = Number(text.slice(1));
      const made = { letter: text[0]!, prime: 0, from: at, to: at + length - 1 };
      at += length;
      return made;
    });
  };
  it.each([
    [blocks('A8', 'A8', 'A8'), [0, 1, 2]],
    [blocks('A4', 'B4', 'B4', 'B4', 'C8'), [0, 1, 4]],
    [blocks('A4', 'B4', 'A4', 'B4'), [0, 1, 2, 3]],
    [blocks('A4', 'B4', 'C4', 'D4', 'A4', 'B4', 'C4', 'D4', 'E4', 'F4'), [0, 2, 4, 6, 8]],
    [blocks('A4', 'B4', 'B4', 'C8'), [0, 1, 2, 3]],
  ])('%#', (found, kept) => expect(sectionsWorthNaming(found)).toEqual(kept));
});
