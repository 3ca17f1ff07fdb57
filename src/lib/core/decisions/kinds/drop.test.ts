import { describe, expect, it } from 'vitest';
import { scoreFrom } from '../../test/shorthand';
import { realise } from '../../version/realise';
import { DEFAULT_RECIPE } from '../../version/recipe';
import type { Decision } from '../registry';

const song = scoreFrom({
  key: 'C',
  time: { beats: 4, beatType: 4 },
  right: 'C5:1 E5:1 G5:2 | C5:4',
  left: 'C3:4 | C3:4',
  chords: 'C | C',
});
const dropped: Decision = { kind: 'drop', at: { note: 'm0s1n1' }, value: true };
const finger: Decision = { kind: 'finger', at: { note: 'm0s1n1' }, value: 4 };
const rightOf = (decisions: readonly Decision[]): string[] =>
  realise(song, DEFAULT_RECIPE, decisions)
    .score.parts[0]!.notes.filter((n) => n.staff === 1)
    .map((n) => n.id);

describe('a note that is left out', () => {
  it('is gone from the page, its place is a rest, and the others stay', () => {
    expect(rightOf([])).toEqual(['m0s1n0', 'm0s1n1', 'm0s1n2', 'm1s1n0']);
    expect(rightOf([dropped])).toEqual(['m0s1n0', 'm0s1n2', 'm1s1n0']);
    const { counts } = realise(song, DEFAULT_RECIPE, [dropped]);
    expect(counts[0]!.counts[1]).toMatchObject({ say: '2', kind: 'rest' });
  });
  it('is not itself parked; what was decided about it waits with it', () => {
    const { parked } = realise(song, DEFAULT_RECIPE, [dropped, finger]);
    expect(parked.map((p) => p.decision)).toEqual([finger]);
  });
  it('waits at a level that leaves the note out anyway', () => {
    const quick = scoreFrom({
      key: 'C',
      time: { beats: 4, beatType: 4 },
      right: 'C5:0.25 D5:0.25 E5:0.5 G5:3',
    });
    const at = { note: 'm0s1n1' };
    const { parked } = realise(quick, { ...DEFAULT_RECIPE, level: 1 }, [{ kind: 'drop', at, value: true }]);
    expect(parked).toMatchObject([{ why: 'its note is not in this version' }]);
  });
});
