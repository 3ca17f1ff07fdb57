import { describe, expect, it } from 'vitest';
import { toMidi, pitchName } from '../theory/pitch';
import { pitchClass } from '../theory/fifths';
import { parseKey, tonicFifths } from '../theory/key';
import { chordsIn, inversionsOf, scaleIn } from './reference';

const key = (code: string) => parseKey(code)!;
const CODES = ['C', 'G', 'D', 'A', 'E', 'B', 'F#', 'Db', 'Ab', 'Eb', 'Bb', 'F'];

describe('the scale of a key', () => {
  it.each([
    ['C', '1 2 3 1 2 3 4 5', '5 4 3 2 1 3 2 1', 'C D E F G A B C'],
    ['F', '1 2 3 4 1 2 3 4', '5 4 3 2 1 3 2 1', 'F G A B♭ C D E F'],
    ['Bb', '4 1 2 3 1 2 3 4', '3 2 1 4 3 2 1 3', 'B♭ C D E♭ F G A B♭'],
    ['B', '1 2 3 1 2 3 4 5', '4 3 2 1 4 3 2 1', 'B C♯ D♯ E F♯ G♯ A♯ B'],
    ['Am', '1 2 3 1 2 3 4 5', '5 4 3 2 1 3 2 1', 'A B C D E F G♯ A'],
  ])('%s has the fingers of the books', (code, right, left, names) => {
    const scale = scaleIn(key(code));
    expect(scale.names.join(' ')).toBe(names);
    expect(scale.right.join(' ')).toBe(right);
    expect(scale.left.join(' ')).toBe(left);
  });
  it.each(CODES)('%s never has the thumb on a black key', (code) => {
    const scale = scaleIn(key(code));
    scale.names.forEach((name, i) => {
      if (/[♯♭]/.test(name) && !['E♯', 'B♯', 'C♭', 'F♭'].includes(name)) {
        expect(scale.right[i], `${code} ${name} right`).not.toBe(1);
        expect(scale.left[i], `${code} ${name} left`).not.toBe(1);
      }
    });
  });
  it('names its signature', () => {
    expect(scaleIn(key('D')).signature).toEqual(['F♯', 'C♯']);
    expect(scaleIn(key('C')).signature).toEqual([]);
  });
});

describe('the chords of a key', () => {
  it('are its seven triads with their numbers', () => {
    expect(chordsIn(key('G')).map((c) => `${c.degree} ${c.symbol}`)).toEqual([
      'I G',
      'ii Am',
      'iii Bm',
      'IV C',
      'V D',
      'vi Em',
      'vii° F♯dim',
    ]);
  });
  it('lead to the tonic in minor', () => {
    const names = chordsIn(key('Am')).map((c) => c.symbol);
    expect(names[4]).toBe('E');
    expect(names[6]).toBe('G♯dim');
    expect(names[2]).toBe('C');
  });
  it('stand in every inversion, each rising, with the usual fingers', () => {
    const [g] = chordsIn(key('G'));
    expect(g!.inversions.map((v) => v.pitches.map(pitchName).join(' '))).toEqual([
      'G3 B3 D4',
      'B3 D4 G4',
      'D4 G4 B4',
    ]);
    expect(g!.inversions.map((v) => v.right.join(''))).toEqual(['135', '125', '135']);
    expect(g!.inversions.map((v) => v.left.join(''))).toEqual(['531', '531', '521']);
  });
  it.each(CODES)(
    '%s: every inversion holds the tones of its chord within an octave, its root where it says',
    (code) => {
      for (const { chord, inversions } of chordsIn(key(code)))
        for (const { inversion, pitches } of inversions) {
          const midis = pitches.map(toMidi);
          expect([...midis].sort((a, b) => a - b)).toEqual(midis);
          expect(midis.at(-1)! - midis[0]!).toBeLessThan(12);
          const root = (pitches.length - inversion) % pitches.length;
          expect(midis[root]! % 12).toBe(pitchClass(chord.root));
        }
    },
  );
  it('also of four tones', () => {
    const seventh = inversionsOf({ root: tonicFifths(key('G')), kind: 'dominant7' });
    expect(seventh).toHaveLength(4);
    expect(seventh[3]!.pitches.map(pitchName)).toEqual(['F4', 'G4', 'B4', 'D5']);
  });
});
