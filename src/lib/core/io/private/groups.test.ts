import { describe, expect, it } from 'vitest';
import { groupStarts } from '../../score/metre';
import { TICKS_PER_QUARTER as Q } from '../../score/ticks';
import { readScoreFile } from '../readScoreFile';
import { writeMusicXml } from '../musicxml/write';

const read = (name: string, text: string) => readScoreFile(name, new TextEncoder().encode(text)).score;
const abc = (time: string, line: string) =>
  read('x.abc', `X:1\nM:${time}\nL:1/8\nK:C\n${`${line}|`.repeat(3)}${line}|]\n`);

describe('groups of a measure', () => {
  it.each([
    ['7/8', 'CDE FG AB', [3, 2, 2]],
    ['7/8', 'CD EF GAB', [2, 2, 3]],
    ['7/8', 'CD EFG AB', [2, 3, 2]],
    ['5/8', 'CD EFG', [2, 3]],
    ['8/8', 'CDE FG ABc', [3, 2, 3]],
  ])('%s spaced “%s” is %j', (time, line, groups) => {
    const score = abc(time, line);
    expect(score.measures.every((m) => JSON.stringify(m.time.groups) === JSON.stringify(groups))).toBe(true);
    // Written and read again they are the same, by the beams.
    const again = read('x.musicxml', writeMusicXml(score));
    expect(again.measures[0]!.time.groups).toEqual(groups);
    const xml = writeMusicXml(score).split('<measure')[1]!;
    const begins = [...xml.matchAll(/<beam number="1">(\w+)/g)].filter(([, kind]) => kind === 'begin');
    expect(begins).toHaveLength(groups.length);
  });
  it('are the places that are strong', () =>
    expect([...groupStarts(abc('7/8', 'CDE FG AB').measures.slice(0, 1))].map((t) => t / Q)).toEqual([
      0, 1.5, 2.5,
    ]));
  it('are not asked where beats are equal, nor made up where nothing speaks for them', () => {
    expect(abc('6/8', 'CDE FGA').measures[0]!.time.groups).toBeUndefined();
    expect(abc('7/8', 'C2 D2 E3').measures[0]!.time.groups).toBeUndefined();
  });
});
