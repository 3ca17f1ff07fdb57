import { describe, expect, it } from 'vitest';
import { scoreFrom } from '../test/shorthand';
import { dryMeasures } from './dry';

const four = { beats: 4, beatType: 4 };
const dry = (right: string, left: string) => dryMeasures(scoreFrom({ key: 'C', time: four, right, left }));

describe('measures without pedal', () => {
  it('are those whose bass steps, and no others', () => {
    expect(
      dry('E5:4 | E4:4 | C5:4', 'C3:1 D3:1 E3:1 F3:1 | C3:1 G3:1 E3:1 G3:1 | [C3 E3]:1 [D3 F3]:1 [E3 G3]:2'),
    ).toEqual([true, false, false]);
  });
  it('are all of a piece in which neither hand moves', () => {
    expect(dry('C4:1 D4:1 E4:1 G4:1 | C4:4', 'C3:4 | G2:4')).toEqual([true, true]);
    expect(dry('C4:1 D4:1 E4:1 A4:1 | C4:4', 'C3:4 | G2:4')).toEqual([false, false]);
  });
  it('are those that are mostly staccato', () => {
    const score = scoreFrom({ key: 'C', time: four, right: 'C5:2 A5:2 | C5:4', left: 'C3:4 | A3:4' });
    const [part] = score.parts;
    const notes = part!.notes.map((n, i) => (i < 2 ? { ...n, articulations: ['staccato' as const] } : n));
    expect(dryMeasures({ ...score, parts: [{ ...part!, notes }] })).toEqual([true, false]);
  });
});
