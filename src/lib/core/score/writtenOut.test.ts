import { describe, expect, it } from 'vitest';
import { perform } from '../performance/perform';
import { scoreFrom } from '../test/shorthand';
import { endOf } from './metre';
import type { Measure } from './score';
import { writtenOut } from './writtenOut';

const song = scoreFrom({
  key: 'C',
  time: { beats: 4, beatType: 4 },
  right: 'C5:4 | D5:4 | E5:4 | F5:4',
  chords: 'C | G | G | C',
});
const routed = (change: (measure: Measure, i: number) => Partial<Measure>) => ({
  ...song,
  measures: song.measures.map((m, i) => ({ ...m, ...change(m, i) })),
});

describe('a piece with its repeats written out', () => {
  it('is the same object where nothing repeats', () => {
    expect(writtenOut(song)).toBe(song);
  });
  it('has what comes again under ids of its own, endings in their turn, and sounds the same', () => {
    const repeated = routed((_, i) =>
      i === 1
        ? { ending: '1', endingEnd: true, repeatEnd: true }
        : i === 2
          ? { ending: '2', endingEnd: true }
          : {},
    );
    const out = writtenOut(repeated);
    expect(out.measures.map((m) => m.id)).toEqual(['m0', 'm1', 'm0~2', 'm2', 'm3']);
    expect(out.measures.map((m) => m.number)).toEqual(['1', '2', '3', '4', '5']);
    out.measures.forEach((m, i) => expect(m.start).toBe(i === 0 ? 0 : endOf(out.measures[i - 1]!)));
    const ids = out.parts[0]!.notes.map((n) => n.id);
    expect(new Set(ids).size).toBe(ids.length);
    expect(ids).toContain('m0s1n0~2');
    expect(out.chordSymbols).toHaveLength(5);
    const heard = (s: typeof out) => perform(s, 'straight').notes.map((n) => [n.onset, n.midi]);
    expect(heard(out)).toEqual(heard(repeated));
  });
  it('has each verse on its own visit', () => {
    const sung = routed((_, i) => (i === 3 ? { repeatEnd: true } : {}));
    const notes = sung.parts[0]!.notes.map((n, i) =>
      i === 0
        ? {
            ...n,
            lyrics: [
              { line: 'words' as const, verse: 1, text: 'row', syllabic: 'single' as const },
              { line: 'words' as const, verse: 2, text: 'rest', syllabic: 'single' as const },
            ],
          }
        : n,
    );
    const out = writtenOut({ ...sung, parts: [{ ...sung.parts[0]!, notes }] });
    const words = out.parts[0]!.notes.flatMap((n) =>
      (n.lyrics ?? []).map((l) => `${n.id} ${l.verse} ${l.text}`),
    );
    expect(words).toEqual(['m0s1n0 1 row', 'm0s1n0~2 1 rest']);
  });
});
