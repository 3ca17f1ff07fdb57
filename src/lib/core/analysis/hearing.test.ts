/** How well chords and keys are heard where no source names them. */
import { describe, expect, it } from 'vitest';
import { scoreFrom } from '../test/shorthand';
import { chordsIn, progressionScore, TEXTURES } from '../test/progressions';
import { chordSymbol, sameChord } from '../theory/chord';
import { keyCode, keyName, parseKey } from '../theory/key';
import { chordsOf } from './harmony';
import { keyOf } from './home';
import { keyReport, withHeardMode } from './key';

const heard = (right: string, left: string): string[] => {
  const score = scoreFrom({ key: 'C', time: { beats: 4, beatType: 4 }, right, left });
  return chordsOf(score).map((c) => (c.chord ? chordSymbol(c.chord) : '–'));
};

describe('what is not wholly there', () => {
  it('is heard in the key: a bare fifth on the second degree is its minor triad', () => {
    expect(heard('A4:4 | [E4 G4]:4', 'D3:4 | C3:4')).toEqual(['Dm', 'C']);
  });
  it('is a dominant where it leads to a chord of the key, though its third is missing', () => {
    expect(heard('[E4 G4]:4 | [F4 A4]:4', 'A2:4 | D3:4')).toEqual(['A7', 'Dm']);
  });
  it('passing notes and suspensions do not make a chord of their own', () => {
    expect(heard('E4:1 F4:1 G4:1 A4:1 | G4:4', '[C3 G3]:4 | [C3 E3]:4')).toEqual(['C']);
    expect(heard('C5:1 B4:3 | C5:4', '[G2 D3 G3]:4 | [C3 E3 G3]:4')).toEqual(['G', 'C']);
  });
});

describe('what is not of the chord', () => {
  it('adds no sixth and no seventh by trilling beside its notes', () => {
    expect(heard(`${'G5:0.5 A5:0.5 '.repeat(2)}G5:0.5 F5:0.5 G5:0.5 A5:0.5`, 'C3:1 G3:1 E3:1 G3:1')).toEqual([
      'C',
    ]);
    const turning = 'C5:0.5 B4:0.5 C5:0.5 B4:0.5 A4:0.5 B4:0.5 A4:0.5 G4:0.5';
    expect(heard(turning, 'C3:1 [E3 G3]:1 C3:1 [E3 G3]:1')).toEqual(['C']);
  });
  it('held over from the chord before and let down, leaves the dominant what it is', () => {
    expect(heard('D5:1 C5:2 B4:1 | C5:4', '[F3 A3]:2 [G2 D3]:2 | C3:4')).toEqual(['Dm/F', 'G', 'C']);
    expect(heard('A4:1 C5:2 B4:1 | C5:4', '[F2 F3]:2 [G2 D3 F3]:2 | C3:4')).toEqual(['F', 'G7', 'C']);
  });
  it('from outside the key, is a neighbour before it is a third', () => {
    expect(heard('G#4:1 A4:1 G#4:1 A4:1', '[F3 C4]:4')).toEqual(['F']);
  });
  it('does not end a chord at the barline that goes on over its bass', () => {
    const line =
      'E5:0.5 F5:0.5 G5:0.5 F5:0.5 A5:0.5 B5:0.5 A5:0.5 G5:0.5 | F5:0.5 D5:0.5 E5:0.5 D5:0.5 C5:0.5 B4:0.5 A4:0.5 G4:0.5';
    expect(heard(line, 'A2:4 | A2:4')).toEqual(['Am']);
  });
});

const KEYS = ['C', 'G', 'D', 'Bb', 'Eb', 'A', 'F#'];
const MINOR_KEYS = ['Am', 'Em', 'Bm', 'Gm', 'Cm', 'F#m', 'Dm'];
const PROGRESSIONS = [
  'C Am F G',
  'C/E F G7 C',
  'Dm7 G7 Cmaj7 Am7',
  'C E7 Am D7 G C',
  'C G/B Am G',
  'C Csus4 C G7sus4 G7 C',
  'Bb F C C',
  'C Cdim7 Dm7 G7',
  'C F/C G/C C',
  'C C/B Am F',
  'Am F C G',
];
const MINOR_PROGRESSIONS = [
  'Am Dm E7 Am',
  'Am G F E',
  'Am Bdim E7 Am',
  'Am Am/G F E7',
  'Am Dm7 G7 C F Bm7b5 E7 Am',
];

/** Share of measures that have just the chord they were written with. */
function heardShare(texture: (typeof TEXTURES)[number]): number {
  let right = 0;
  let all = 0;
  for (const [lists, keys] of [
    [PROGRESSIONS, KEYS],
    [MINOR_PROGRESSIONS, MINOR_KEYS],
  ] as const)
    for (const code of keys)
      for (const names of lists) {
        const chords = chordsIn(names, parseKey(code)!);
        const score = progressionScore(chords, code, texture);
        const spans = chordsOf(score);
        chords.forEach((chord, i) => {
          const { start, length } = score.measures[i]!;
          const inside = spans.filter((s) => s.onset < start + length && s.onset + s.duration > start);
          all += 1;
          if (inside.length === 1 && sameChord(inside[0]!.chord, chord)) right += 1;
        });
      }
  return right / all;
}

describe('chords without symbols, in fourteen keys', () => {
  it.each(TEXTURES)('are heard in %s texture', (texture) => {
    expect(heardShare(texture)).toBeGreaterThan(0.96);
  });
  const heard = (right: string, left: string, key = 'C'): string[] =>
    chordsOf(scoreFrom({ key, time: { beats: 4, beatType: 4 }, right, left })).map((s) =>
      s.chord ? chordSymbol(s.chord) : '–',
    );
  it('are not made by suspensions and neighbours', () => {
    expect(
      heard('E5:2 F5:1 E5:1 | F5:2 E5:1 D5:1 | E5:4', '[C3 G3 C4]:4 | [G2 D3 B3]:4 | [C3 G3]:4'),
    ).toEqual(['C', 'G7', 'C']);
    expect(heard('C5:1 B4:0.5 C5:0.5 E5:1 D5:0.5 E5:0.5 | F5:4', '[C3 E3 G3]:4 | [F3 A3 C4]:4')).toEqual([
      'C',
      'F',
    ]);
  });
  it('stand over a pedal point as what they are', () => {
    expect(heard('[E4 G4]:4 | [F4 A4]:4 | [D4 G4 B4]:4 | [E4 G4]:4', 'C3:4 | C3:4 | C3:4 | C3:4')).toEqual([
      'C',
      'F/C',
      'G/C',
      'C',
    ]);
  });
  it('change inside a measure where the bass does', () => {
    expect(heard('E5:1 C5:1 D5:1 B4:1 | C5:4', '[C3 E3 G3]:2 [G2 B2 D3]:2 | [C3 E3 G3]:4')).toEqual([
      'C',
      'G',
      'C',
    ]);
  });
});

describe('keys', () => {
  it.each(KEYS)('%s and its relative minor are told apart', (code) => {
    const major = parseKey(code)!;
    const sign = { fifths: major.fifths, mode: 'major' as const };
    const minor = { fifths: major.fifths, mode: 'minor' as const };
    const inMajor = progressionScore(chordsIn('C F G7 C Am Dm G7 C', major), code, 'broken');
    expect(keyName(keyOf(inMajor))).toBe(keyName(major));
    const inMinor = progressionScore(chordsIn('Am Dm E7 Am F Dm E7 Am', minor), keyCode(minor), 'broken');
    const unsaid = { ...inMinor, measures: inMinor.measures.map((m) => ({ ...m, key: sign })) };
    expect(keyName(keyOf(unsaid))).toBe(keyName(minor));
  });
  it('a signature that the notes contradict is said', () => {
    const inD = progressionScore(chordsIn('C F G7 C Am Dm G7 C', parseKey('D')!), 'D', 'melody');
    const wrong = { ...inD, measures: inD.measures.map((m) => ({ ...m, key: parseKey('C')! })) };
    const { key, signed, other } = keyReport(wrong);
    expect([key, signed!, other!].map(keyName)).toEqual(['D major', 'C major', 'C major']);
    expect(keyReport(inD).signed).toBeUndefined();
    // What counts degrees, and what writes a signature, follow the same key.
    const heard = withHeardMode(wrong);
    expect(new Set(heard.measures.map((m) => keyName(m.key)))).toEqual(new Set(['D major']));
    expect(chordsOf(wrong).map((c) => chordSymbol(c.chord!))).toEqual(
      chordsOf(inD).map((c) => chordSymbol(c.chord!)),
    );
  });
  it('a passage in another key is found', () => {
    const home = chordsIn('C F G7 C Am Dm G7 C', parseKey('C')!);
    const away = chordsIn('C F G7 C C F G7 C', parseKey('E')!);
    const { passages } = keyReport(progressionScore([...home, ...away, ...home], 'C', 'melody'));
    expect(passages.map((p) => keyName(p.key))).toEqual(['E major']);
    expect(Math.abs(passages[0]!.from - 8)).toBeLessThanOrEqual(1);
    expect(Math.abs(passages[0]!.to - 15)).toBeLessThanOrEqual(1);
    expect(keyReport(progressionScore([...home, ...home], 'C', 'broken')).passages).toEqual([]);
  });
});
