import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readMusicXml } from '../io/musicxml/read';
import { writeMusicXml } from '../io/musicxml/write';
import { excerpt } from '../score/excerpt';
import { toMidi } from '../theory/pitch';
import { scoreFrom } from '../test/shorthand';
import { cutsOf } from './cuts';

const long = (measures: number, sections: Readonly<Record<number, string>> = {}) => {
  const score = scoreFrom({
    title: 'Long',
    key: 'G',
    time: { beats: 3, beatType: 4 },
    right: Array.from({ length: measures }, (_, i) => (i % 2 ? 'G4:1 A4:1 B4:1' : 'D5:3')).join(' | '),
    left: Array.from({ length: measures }, () => 'G3:3').join(' | '),
  });
  return {
    ...score,
    measures: score.measures.map((m, i) => (sections[i] ? { ...m, section: sections[i] } : m)),
  };
};

describe('a piece cut into pieces', () => {
  it('is cut where its source has sections, and evenly where they are long', () => {
    expect(cutsOf(long(20, { 4: 'Verse', 12: 'Chorus' }))).toEqual([
      { from: 0, to: 3, name: '' },
      { from: 4, to: 11, name: 'Verse' },
      { from: 12, to: 19, name: 'Chorus' },
    ]);
    expect(cutsOf(long(200)).map((c) => [c.from, c.to])).toEqual([
      [0, 71],
      [72, 143],
      [144, 199],
    ]);
  });
  it('law: every measure is in one of them', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 400 }),
        fc.uniqueArray(fc.nat(399), { maxLength: 5 }),
        (n, at) => {
          const cuts = cutsOf(long(n, Object.fromEntries(at.map((i) => [i, 'x']))));
          const all = cuts.flatMap(({ from, to }) =>
            Array.from({ length: to - from + 1 }, (_, i) => from + i),
          );
          expect(all).toEqual(Array.from({ length: n }, (_, i) => i));
        },
      ),
      { numRuns: 20 },
    );
  });
  it('is the same music, key and meter when it is a file of its own', () => {
    const { score } = readMusicXml(writeMusicXml(excerpt(long(20), { from: 7, to: 9 })));
    expect(score.measures.map((m) => [m.time.beats, m.key.fifths])).toEqual([
      [3, 1],
      [3, 1],
      [3, 1],
    ]);
    const right = score.parts[0]!.notes.filter((n) => n.staff === 1);
    expect(right.map((n) => toMidi(n.pitch))).toEqual([67, 69, 71, 74, 67, 69, 71]);
    expect(right[0]!.onset).toBe(0);
  });
});
