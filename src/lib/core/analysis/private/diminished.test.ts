import { describe, expect, it } from 'vitest';
import { readScoreFile } from '../../io/readScoreFile';
import { chordSymbol } from '../../theory/chord';
import { parseChord } from '../../theory/chordName';
import { parseKey } from '../../theory/key';
import { ledDiminished } from './diminished';
import { reportOf } from '../../report/report';

const led = (chord: string, next: string, key = 'C'): string =>
  chordSymbol(ledDiminished(parseChord(chord)!, parseChord(next), [], parseKey(key)!));

describe('a diminished seventh', () => {
  it.each([
    ['Adim7', 'G', 'F♯dim7/A'],
    ['C#dim7', 'Dm', 'C♯dim7'],
    ['Edim7', 'Dm', 'C♯dim7/E'],
    ['Ebdim7', 'Em', 'D♯dim7'],
    ['Bdim7', 'C', 'Bdim7'],
  ])('%s before %s is %s: a half step below where it leads', (chord, next, name) => {
    expect(led(chord, next)).toBe(name);
  });
  it('that leads nowhere is that of its key, else what lies in the bass', () => {
    expect(led('Fdim7', 'G7')).toBe('Bdim7/F');
    expect(led('C#dim7', 'C#dim7')).toBe('C♯dim7');
  });
  it('is spelled as in its source where nothing else says', () => {
    const { progression } = reportOf(
      readScoreFile(
        'x.abc',
        new TextEncoder().encode(
          'X:1\nM:4/4\nL:1/4\nK:G\nV:1\nV:2 clef=bass\n[V:1] [GBd]4|[^DFAc]4|[GBe]4|[DFc]4|[DGB]4|]\n[V:2] G,4|^D,4|E,4|D,4|G,,4|]\n'.replaceAll(
            '\\\n',
            '\n',
          ),
        ),
      ).score,
    );
    expect(progression.map((c) => c.symbol)[1]).toBe('D♯dim7');
    expect(progression.map((c) => c.degree)[1]).toBe('vii°7/vi');
  });
});
