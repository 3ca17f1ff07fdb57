import { describe, expect, it } from 'vitest';
import { formOf } from '../../analysis/form';
import { scoreFrom } from '../../test/shorthand';
import type { Decision } from '../../decisions/registry';
import { decidedSource } from './decidedSource';

const song = scoreFrom({
  key: 'C',
  time: { beats: 4, beatType: 4 },
  right: Array.from({ length: 8 }, (_, i) => `${'CDEFGABC'[i]}5:4`).join(' | '),
  chords: Array(8).fill('C').join(' | '),
  sections: { 1: 'Door', 5: 'Window' },
});
const sections = (decisions: readonly Decision[]): string[] =>
  formOf(decidedSource(song, decisions)).sections.map((s) => `${s.label} ${s.from}`);

describe('a source as it is decided', () => {
  it('without decisions is the source', () => {
    expect(decidedSource(song, [])).toBe(song);
  });
  it('has sections taken away, put in and named; the others stay, and the first always begins', () => {
    const at = (measure: string, value: 'none' | { name: string }): Decision => ({
      kind: 'section',
      at: { measure },
      value,
    });
    expect(sections([])).toEqual(['Door 0', 'Window 4']);
    expect(sections([at('m4', 'none')])).toEqual(['Door 0']);
    expect(sections([at('m2', { name: 'Stair' })])).toEqual(['Door 0', 'Stair 2', 'Window 4']);
    expect(sections([at('m4', { name: 'Gate' })])).toEqual(['Door 0', 'Gate 4']);
    expect(sections([at('m0', 'none')])).toEqual(['Door 0', 'Window 4']);
  });
});
