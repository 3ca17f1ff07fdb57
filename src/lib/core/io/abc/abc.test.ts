import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { pitchName } from '../../theory/pitch';
import { soundingNotes } from '../../score/query';
import type { Score } from '../../score/score';
import { TICKS_PER_QUARTER as Q } from '../../score/ticks';
import { scoreFrom } from '../../test/shorthand';
import { chordSymbol } from '../../theory/chord';
import { keyName } from '../../theory/key';
import { readScoreFile } from '../readScoreFile';
import { readAbc } from './read';
import { writeAbc } from '../private/abc/write';

const notesOf = (score: Score, part = 0): string[] =>
  score.parts[part]!.notes.map(
    (n) =>
      `${pitchName(n.pitch)}@${+(n.onset / Q).toFixed(3)}+${+(n.duration / Q).toFixed(3)}${n.staff === 2 ? '/2' : ''}`,
  );
const tune = (body: string, header = 'M:4/4\nL:1/4\nK:C'): Score =>
  readAbc(`X:1\nT:Tune\n${header}\n${body}\n`).score;

describe('reading ABC', () => {
  it('takes header, key, time signature, tempo, pickup, chords, fingers and words', () => {
    const score = readAbc(
      'X:7\nT:Brook\nC:Nobody\nM:6/8\nL:1/8\nQ:3/8=60\nK:Em\n!1!B,|"Em"!2!E2G "B7/D#"B2A|"Em"G6|]\nw:o the long brook runs down\n',
    ).score;
    expect(score).toMatchObject({ title: 'Brook', composer: 'Nobody', tempo: 90 });
    expect(keyName(score.measures[0]!.key)).toBe('E minor');
    expect(score.measures.map((m) => [m.number, m.length / Q, m.beginsAt / Q])).toEqual([
      ['0', 0.5, 2.5],
      ['1', 3, 0],
      ['2', 3, 0],
    ]);
    expect(notesOf(score)).toEqual(['B3@0+0.5', 'E4@0.5+1', 'G4@1.5+0.5', 'B4@2+1', 'A4@3+0.5', 'G4@3.5+3']);
    expect(score.chordSymbols.map((s) => [s.onset / Q, chordSymbol(s.chord!)])).toEqual([
      [0.5, 'Em'],
      [2, 'B7/D♯'],
      [3.5, 'Em'],
    ]);
    expect(score.parts[0]!.notes.slice(0, 2)).toMatchObject([
      { finger: 1, lyrics: [{ text: 'o' }] },
      { finger: 2, lyrics: [{ text: 'the' }] },
    ]);
  });
  it('carries accidentals through the measure, over ties, and no further', () => {
    expect(notesOf(tune('^F f F =F|F ^c2 c-|c c2 z|'))).toEqual([
      'F♯4@0+1',
      'F♯5@1+1',
      'F♯4@2+1',
      'F4@3+1',
      'F4@4+1',
      'C♯5@5+2',
      'C♯5@7+1',
      'C♯5@8+1',
      'C5@9+2',
    ]);
  });
  it('reads tuplets, broken rhythm, chords and grace notes', () => {
    const score = tune('(3cde f>g|{/g}[CEG]4|(5:4:5c/d/e/f/g/ z2|');
    expect(notesOf(score)).toEqual([
      'C5@0+0.667',
      'D5@0.667+0.667',
      'E5@1.333+0.667',
      'F5@2+1.5',
      'G5@3.5+0.5',
      'G5@4+0',
      'C4@4+4',
      'E4@4+4',
      'G4@4+4',
      'C5@8+0.4',
      'D5@8.4+0.4',
      'E5@8.8+0.4',
      'F5@9.2+0.4',
      'G5@9.6+0.4',
    ]);
    expect(score.parts[0]!.notes[5]!.grace).toMatchObject({ slash: true });
    expect(score.parts[0]!.notes[0]!.tuplet).toEqual({ actual: 3, normal: 2 });
  });
  it('reads repeats, endings, signs of the way and sections', () => {
    const score = tune('[P:Verse]!segno!c4|:d4|1 e4:|2 f4 !D.S.!||');
    expect(
      score.measures.map(({ section, repeatStart, repeatEnd, ending, route }) => ({
        section,
        repeatStart,
        repeatEnd,
        ending,
        route,
      })),
    ).toEqual([
      { section: 'Verse', route: { segno: true } },
      { repeatStart: true },
      { ending: '1', repeatEnd: true },
      { ending: '2', route: { jump: 'dal segno' } },
    ]);
  });
  it('makes one part of two staves in a brace, and changes time signature and key', () => {
    const score = readAbc(
      'X:1\nM:3/4\nL:1/4\n%%score {R L}\nV:R\nV:L clef=bass\nK:D\n[V:R] F G A | [M:2/4][K:C] F2 |]\n[V:L] D,3 | [M:2/4][K:C] F,2 |]\n',
    ).score;
    expect(score.parts).toHaveLength(1);
    expect(notesOf(score)).toEqual(['F♯4@0+1', 'D3@0+3/2', 'G4@1+1', 'A4@2+1', 'F4@3+2', 'F3@3+2/2']);
    expect(score.measures.map((m) => [m.time.beats, m.key.fifths])).toEqual([
      [3, 2],
      [2, 0],
    ]);
  });
  it('lays voices over one another', () => {
    expect(notesOf(tune('e4 & c2 d2|f4|'))).toEqual(['E5@0+4', 'C5@0+2', 'D5@2+2', 'F5@4+4']);
  });
  it.each([
    ['Dphr ^F', 'D phrygian'],
    ['Am ^g', 'A minor'],
    ['F#m', 'F♯ minor'],
    ['Ddor', 'D dorian'],
    ['Bb', 'B♭ major'],
  ])('K:%s is %s, whatever accidentals are written beside it', (written, name) => {
    expect(keyName(readAbc(`X:1\nM:4/4\nL:1/4\nK:${written}\nD F A D|\n`).score.measures[0]!.key)).toBe(name);
  });
  it('goes on where lines are joined around fields, leaves signs under the music out, and plays pipes with their sharps', () => {
    const { score, warnings } = readAbc(
      'X:1\nT:A long \\\nname\nR:march\nL:1/4\nK:HP\nCF|\\\nw:one two\nFC[|]C:F|\nd: . . T\n',
    );
    expect(score.title).toBe('A long name');
    expect(score.parts[0]!.notes.map((n) => pitchName(n.pitch)).join(' ')).toBe('C♯4 F♯4 F♯4 C♯4 C♯4 F♯4');
    expect(score.measures).toHaveLength(3);
    expect(score.parts[0]!.marks?.[0]).toMatchObject({ kind: 'words', text: 'March' });
    expect(warnings).toEqual(['Left out: 1 line of signs (d: or s:), which belong to no note.']);
  });
  it('repeats from the pickup where the sign stands before it and after it', () => {
    const { score } = readAbc('X:1\nM:3/4\nL:1/4\nK:C\nC3:|\n|:D|\\\n|:EFG|A2:|\n');
    expect(score.measures.map((m) => m.repeatStart ?? false)).toEqual([false, true, false, false]);
  });
  it('reads a tune typed in haste', () => {
    expect(notesOf(readAbc('CDEF | G4').score)).toHaveLength(5);
    expect(notesOf(readAbc('K:F\nB2').score)).toEqual(['B♭4@0+1']);
  });
  it('is known by its content', () => {
    const bytes = new TextEncoder().encode('X:1\nT:By content\nK:C\nCDEF|\n');
    expect(readScoreFile('tune.txt', bytes).score.title).toBe('By content');
  });
  it('says where something was not understood, and what is no tune', () => {
    expect(readAbc('X:1\nK:C\nCDEF| \u00b6 G4|\n').warnings.join()).toBe(
      'Line 3: a character is left out (“¶”, at character 7).',
    );
    const many = readAbc('X:1\nK:C\n%%layout 3\n"Czz9"CDEF|!zork!G2 {A c|\n').warnings;
    expect(many.filter((w) => /not known|not closed/.test(w))).toHaveLength(2);
    expect(many.join()).toContain('“Czz9” isn’t a chord Key Path knows; its root, C, is kept.');
    expect(() => readAbc('X:1\nK:C\n')).toThrow(/holds no notes/);
  });
});

const rich = (): Score =>
  scoreFrom({
    title: 'Round trip',
    key: 'Eb',
    time: { beats: 3, beatType: 4 },
    tempo: 90,
    pickup: 1,
    right: 'Bb4:1 | Eb4:1 G4:0.5 A4:0.5 Bb4:1 | [C5 Eb5]:2 D5:1 | B4:1.5 C5:0.5 Ab4:1 | Eb5:3',
    left: 'r:1 | Eb3:3 | [Ab2 Eb3]:3 | G2:1 [F3 B3]:2 | [Eb2 Bb2]:3',
    chords: ' | Eb | Ab Bb7/D | G7 | Eb',
    sections: { 1: 'Verse' },
  });

it('a tie may stand before the octave of its note', () => {
  const { notes } = tune("[C-,G-,c'-]2 [C,G,c']2|]").parts[0]!;
  expect(notes.map((n) => [pitchName(n.pitch), n.tie])).toEqual([
    ['C3', 'start'],
    ['G3', 'start'],
    ['C6', 'start'],
    ['C3', 'stop'],
    ['G3', 'stop'],
    ['C6', 'stop'],
  ]);
});

describe('ABC, there and back', () => {
  it('keeps pitch, spelling, time, hands, chords, sections, tempo', () => {
    const back = readAbc(writeAbc(rich())).score;
    expect(notesOf(back)).toEqual(notesOf(rich()));
    expect(back).toMatchObject({ title: 'Round trip', tempo: 90 });
    expect(back.measures.map((m) => [m.length, m.beginsAt, m.section])).toEqual(
      rich().measures.map((m) => [m.length, m.beginsAt, m.section]),
    );
    expect(back.chordSymbols).toEqual(rich().chordSymbols);
  });
  it('keeps repeats, endings, ties, slurs, fingers, words and triplets', () => {
    const source = tune(
      '!1!c-c (3def|:(g a) b2|1 !accent!c4:|2 {ga}c4|{/f}d2 {e2}d2 ~d4|]\nw: o-ver the hills we go to day~break\nw: two * verses',
    );
    const again = readAbc(writeAbc(source)).score;
    expect(again.parts).toEqual(source.parts);
    expect(again.measures).toEqual(source.measures);
  });
  it('law: what sounds is the same after writing and reading', () => {
    const duration = fc.constantFrom(0.5, 1, 1.5, 2, 3);
    const pitch = fc.tuple(
      fc.constantFrom(...'CDEFGAB'),
      fc.constantFrom('', '#', 'b'),
      fc.integer({ min: 2, max: 6 }),
    );
    const measure = fc.array(fc.tuple(pitch, duration), { minLength: 1, maxLength: 6 }).map((list) => {
      let left = 4;
      const tokens = list.flatMap(([[step, alter, octave], d]) => {
        const own = Math.min(d, left);
        left -= own;
        return own > 0 ? [`${step}${alter}${octave}:${own}`] : [];
      });
      return [...tokens, ...(left > 0 ? [`r:${left}`] : [])].join(' ');
    });
    const staff = fc.array(measure, { minLength: 3, maxLength: 3 }).map((m) => m.join(' | '));
    fc.assert(
      fc.property(staff, staff, fc.constantFrom('C', 'A', 'Ebm', 'F#', 'Bb'), (right, left, key) => {
        const score = scoreFrom({ key, time: { beats: 4, beatType: 4 }, right, left });
        const sound = (s: Score): string[] =>
          soundingNotes(s.parts[0]!.notes).map(
            (n) => `${pitchName(n.pitch)}@${n.onset}+${n.duration}/${n.staff}`,
          );
        expect(sound(readAbc(writeAbc(score)).score)).toEqual(sound(score));
      }),
      { numRuns: 60 },
    );
  });
  it('law: any text is a tune or one sentence, never a crash', () => {
    const letters = fc.constantFrom(...'abcABC|:[](){}/_^=-"!#%zx23456789 \nKMLVPwXT'.split(''));
    fc.assert(
      fc.property(fc.array(letters, { maxLength: 80 }), (list) => {
        try {
          readScoreFile('x.abc', new TextEncoder().encode(`X:1\nK:C\n${list.join('')}`));
        } catch (error) {
          expect((error as Error).name).toBe('InputError');
        }
      }),
      { numRuns: 300 },
    );
  });
});
