import { describe, expect, it } from 'vitest';
import { pitchName } from '../theory/pitch';
import { soundingNotes } from '../score/query';
import { TICKS_PER_QUARTER } from '../score/ticks';
import { scoreFrom } from '../test/shorthand';
import { chordSymbol } from '../theory/chord';
import type { Decision } from '../decisions/registry';
import { keyOf, otherHome } from '../analysis/home';
import { innerGroups } from '../score/metre';
import { keyName } from '../theory/key';
import { canMend, mended } from './mend';
import { realise } from './realise';
import { DEFAULT_RECIPE } from './recipe';

const song = scoreFrom({
  key: 'G',
  time: { beats: 4, beatType: 4 },
  right: 'G4:1 A4:1 B4:2 | C5:4 | D5:4',
  left: 'G3:4 | C3:4 | G3:4',
  chords: 'G | C | G',
});
const tune = (mends: readonly Decision[]): string[] =>
  soundingNotes(mended(song, mends).parts[0]!.notes)
    .filter((n) => n.staff === 1)
    .map((n) => `${pitchName(n.pitch)}/${n.duration / TICKS_PER_QUARTER}`);

describe('a mended source', () => {
  it('has another pitch, length or hand where it was wrong, and nothing else changes', () => {
    const sharp: Decision = { kind: 'pitch', at: { note: 'm0s1n1' }, value: { steps: 0, alter: 1 } };
    expect(tune([sharp])).toEqual(['G4/1', 'A♯4/1', 'B4/2', 'C5/4', 'D5/4']);
    expect(tune([{ kind: 'length', at: { note: 'm0s1n2' }, value: { value: 4, dots: 0 } }])[2]).toBe('B4/1');
    expect(tune([{ kind: 'length', at: { note: 'm0s1n0' }, value: { value: 2, dots: 0 } }])[0]).toBe('G4/1');
    expect(tune([{ kind: 'hand', at: { note: 'm1s1n0' }, value: 'left' }])).toHaveLength(4);
    expect(mended(song, [])).toBe(song);
  });
  it('has other chords in a measure, and the chord that stood goes on behind it', () => {
    const { chordSymbols } = mended(song, [{ kind: 'chords', at: { measure: 'm1' }, value: 'Am D7' }]);
    expect(chordSymbols.map((s) => [s.onset / TICKS_PER_QUARTER, chordSymbol(s.chord!)])).toEqual([
      [0, 'G'],
      [4, 'Am'],
      [6, 'D7'],
      [8, 'G'],
    ]);
  });
  it('lets a chord go on that stood over the measure', () => {
    const one = { ...song, chordSymbols: song.chordSymbols.slice(0, 1) };
    const { chordSymbols } = mended(one, [{ kind: 'chords', at: { measure: 'm1' }, value: 'D7' }]);
    expect(chordSymbols.map((s) => [s.onset / TICKS_PER_QUARTER, chordSymbol(s.chord!)])).toEqual([
      [0, 'G'],
      [4, 'D7'],
      [8, 'G'],
    ]);
  });
  it('is what every version is made of', () => {
    const wrong: Decision = { kind: 'pitch', at: { note: 'm1s1n0' }, value: { steps: 1, alter: 0 } };
    for (const level of [1, 3, 6]) {
      const { score } = realise(mended(song, [wrong]), { ...DEFAULT_RECIPE, level, key: 'G' }, []);
      const note = score.parts[0]!.notes.find((n) => n.id === 'm1s1n0')!;
      expect(pitchName(note.pitch).replace(/\d/, '')).toBe('D');
    }
  });
  it('is mended only in what the source itself holds', () => {
    expect(canMend({ kind: 'drop', at: { note: 'm0s1n0' }, value: true }, song)).toBe(true);
    expect(canMend({ kind: 'drop', at: { note: 'Lm0-0-bass' }, value: true }, song)).toBe(false);
    expect(canMend({ kind: 'finger', at: { note: 'm0s1n0' }, value: 2 }, song)).toBe(false);
    expect(canMend({ kind: 'chords', at: { measure: 'm1' }, value: 'C' }, song)).toBe(true);
  });
  it('is at home where the teacher says, whatever is heard, and every version with it', () => {
    const said = mended(song, [{ kind: 'home', at: { version: true }, value: 'Em' }]);
    expect(keyName(keyOf(song))).toBe('G major');
    expect(keyName(keyOf(said))).toBe('E minor');
    expect(otherHome(said)).toBeUndefined();
    expect(keyName(realise(said, { ...DEFAULT_RECIPE, key: 'Dm' }, []).key)).toBe('D minor');
    expect(canMend({ kind: 'home', at: { version: true }, value: 'Em' }, song)).toBe(true);
  });
  it('is grouped as the teacher says, where that fills the measure', () => {
    const seven = scoreFrom({
      key: 'C',
      time: { beats: 7, beatType: 8 },
      right: 'C5:1 D5:1 E5:1.5 | C5:3.5',
      left: 'C3:3.5 | C3:3.5',
      chords: 'C | C',
    });
    const grouped = (value: string) =>
      innerGroups(mended(seven, [{ kind: 'groups', at: { version: true }, value }]).measures[0]!.time).map(
        (t) => (2 * t) / TICKS_PER_QUARTER,
      );
    expect(grouped('3+2+2')).toEqual([3, 5]);
    expect(grouped('2+3+2')).toEqual([2, 5]);
    expect(grouped('3+3+2')).toEqual(
      innerGroups(seven.measures[0]!.time).map((t) => (2 * t) / TICKS_PER_QUARTER),
    );
  });
});
