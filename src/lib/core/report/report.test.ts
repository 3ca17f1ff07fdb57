import { describe, expect, it } from 'vitest';
import { scoreFrom } from '../test/shorthand';
import { reportOf } from './report';

describe('the level of a piece', () => {
  it.each([
    ['C', 1],
    ['G', 1],
    ['D', 2],
    ['A', 3],
    ['F#', 6],
  ])('a slow tune in %s is read from level %i on', (key, level) => {
    const tonic = key === 'F#' ? 'F#4' : `${key}4`;
    const tune = scoreFrom({ key, time: { beats: 4, beatType: 4 }, right: `${tonic}:4 | ${tonic}:4` });
    expect(reportOf(tune).level).toBe(level);
  });
});
