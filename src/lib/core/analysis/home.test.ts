import { describe, expect, it } from 'vitest';
import { readScoreFile } from '../io/readScoreFile';
import { keyName, parseKey } from '../theory/key';
import { parseChord } from '../theory/chordName';
import { homeChoices, homeOfChords, homesOf, keyOf, otherHome } from './home';
import { keyReport, withHeardMode } from './key';

const tune = (text: string) => readScoreFile('x.abc', new TextEncoder().encode(text)).score;
const homeOf = (text: string): string => keyName(keyOf(tune(text)));
/** Chords in measures of their own, each over its root, under a signature. */
const charted = (chords: string, signature = 'C'): string =>
  `X:1\nM:4/4\nL:1/4\nK:${signature}\n${chords
    .split(' ')
    .map((c) => `"${c}"${c.replace(/^(.)b/, '_$1')[0] === '_' ? `_${c[0]}` : c[0]}4`)
    .join('|')}|]\n`;
const ofChords = (chords: string): string =>
  keyName(homeOfChords(chords.split(' ').map((c) => parseChord(c)!)));

describe('the home of a piece', () => {
  it.each([
    ['Fm7 Bb7 Ebmaj7 Cm7 Fm7 Bb7 Ebmaj7 Ebmaj7', 'Eb', 'E♭ major'],
    ['Am F C G Am F C G Am', 'C', 'A minor'],
    ['C Am F G C Am G C', 'C', 'C major'],
    ['Dm G Dm G Dm C G Dm', 'C', 'D dorian'],
    ['D C G D D C G D', 'G', 'D mixolydian'],
    ['Em F Em F Em Dm F Em', 'C', 'E phrygian'],
    ['F G F G Am G F', 'C', 'F lydian'],
  ])('by its chords: %s', (chords, signature, home) => {
    expect(homeOf(charted(chords, signature))).toBe(home);
  });
  it.each([
    ['D C G D D C G D', 'D mixolydian'],
    ['Dm7 G7 Cmaj7 Cmaj7', 'C major'],
    ['Bb Gm Eb F7 Bb', 'B♭ major'],
    ['Em Am B7 Em', 'E minor'],
  ])('of a chart that names no key: %s', (chords, home) => {
    expect(ofChords(chords)).toBe(home);
  });
  it('is its first signature’s, and a change of signature is a passage with its borders', () => {
    const score = tune(
      'X:1\nM:4/4\nL:1/4\nK:C\nC E G c|F A c2|G B d B|c4|[K:Cm]c _B _A G|_A F D2|G =B d B|c4|[K:C]C E G c|F A c2|G B d B|c4|]\n',
    );
    expect(keyName(keyOf(score))).toBe('C major');
    expect(keyReport(score).passages.map((p) => [p.from, p.to, keyName(p.key)])).toEqual([[4, 7, 'C minor']]);
    expect(withHeardMode(score).measures[5]!.key).toEqual(parseKey('Cm'));
  });
  it('goes elsewhere for a passage, and back, only where the chords written there have its tonic', () => {
    const away = (chords: string) =>
      keyReport(tune(charted(`C F G C ${chords} C F G C`))).passages.map((p) => keyName(p.key));
    expect(away('A D E A D A E A')).toEqual(['A major']);
    // The same notes over chords that never come to A.
    expect(away('D D E D E D E D')).toEqual([]);
  });
  it('is what the teacher says, and then nothing else is offered', () => {
    const score = { ...tune(charted('Am F C G Am F C G')), home: parseKey('F')! };
    expect(keyName(keyOf(score))).toBe('F major');
    expect(otherHome(score)).toBeUndefined();
    expect(homesOf(score)).toHaveLength(1);
  });
  it('has the second reading beside it where both are near', () => {
    const loop = tune(charted('Am F C G Am F C G'));
    expect([keyName(keyOf(loop)), keyName(otherHome(loop)!)].sort()).toEqual(['A minor', 'C major']);
    expect(otherHome(tune(charted('C F G7 C C F G7 C')))).toBeUndefined();
    // Also where the source has named one of them.
    expect(keyName(otherHome(tune(charted('Am F C G Am F C G', 'Am')))!)).toBe('C major');
  });
  it('can be chosen from all modes of its signature and from the keys of the others', () => {
    const names = homeChoices(2).map(keyName);
    expect(names.slice(0, 7)).toEqual([
      'D major',
      'B minor',
      'E dorian',
      'F♯ phrygian',
      'G lydian',
      'A mixolydian',
      'C♯ locrian',
    ]);
    expect(new Set(names).size).toBe(7 + 12 * 2);
  });
});
