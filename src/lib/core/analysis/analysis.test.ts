import { describe, expect, it } from 'vitest';
import { scoreFrom } from '../test/shorthand';
import { chordSymbol } from '../theory/chord';
import { keyName } from '../theory/key';
import { pitchName } from '../theory/pitch';
import { TICKS_PER_QUARTER as Q } from '../score/ticks';
import { foldedPath, formOf } from './form';
import { chordsOf } from './harmony';
import { keyOf } from './home';
import { withHeardMode } from './key';
import { melodyOf, melodyPart } from './melody';

const fourFour = { beats: 4, beatType: 4 };
const threeFour = { beats: 3, beatType: 4 };

describe('key', () => {
  const ending = (left: string, key: string) =>
    scoreFrom({ key, time: fourFour, right: 'E4:4 | E4:4', left: `A2:4 | ${left}` });
  it('is minor where the piece closes on the relative minor, whatever the signature says', () => {
    expect(keyName(keyOf(ending('A2:4', 'C')))).toBe('A minor');
    expect(keyName(keyOf(ending('C3:4', 'C')))).toBe('C major');
    expect(keyName(keyOf(ending('A2:4', 'Am')))).toBe('A minor');
  });
  it('is written into the measures', () => {
    expect(withHeardMode(ending('A2:4', 'C')).measures.every((m) => m.key.mode === 'minor')).toBe(true);
  });
});

describe('chords', () => {
  const heard = (right: string, left: string, key = 'C', time = fourFour): string[] =>
    chordsOf(scoreFrom({ key, time, right, left })).map((s) => s.chord && chordSymbol(s.chord)) as string[];

  it('come from the symbols where there are any, each lasting to the next', () => {
    const spans = chordsOf(
      scoreFrom({ key: 'C', time: fourFour, right: 'C4:4 | C4:4 | C4:4', chords: 'C | F G | C' }),
    );
    expect(spans.map((s) => [s.onset / Q, s.duration / Q, s.from])).toEqual([
      [0, 4, 'symbol'],
      [4, 2, 'symbol'],
      [6, 2, 'symbol'],
      [8, 4, 'symbol'],
    ]);
  });
  it('are heard from block chords', () => {
    expect(
      heard('E4:4 | A4:4 | B4:4 | C5:4', '[C3 E3 G3]:4 | [F3 A3 C4]:4 | [G3 B3 D4]:4 | [C3 E3 G3]:4'),
    ).toEqual(['C', 'F', 'G', 'C']);
  });
  it('are heard through broken chords and passing notes', () => {
    expect(
      heard(
        'C5:1 D5:1 E5:1 F5:1 | F5:1 G5:1 A5:1 G5:1 | G5:1.5 F5:0.5 D5:1 B4:1 | C5:4',
        'C3:0.5 G3:0.5 E3:0.5 G3:0.5 C3:0.5 G3:0.5 E3:0.5 G3:0.5 | F3:1 C4:1 A3:1 C4:1 | G2:1 D3:1 B3:1 D3:1 | C3:4',
      ),
    ).toEqual(['C', 'F', 'G', 'C']);
  });
  it('are heard over all parts together, not the first alone', () => {
    const one = scoreFrom({ key: 'C', time: fourFour, right: 'A4:1 F4:1 D4:1 F4:1 | E4:1 G4:1 C5:2' });
    const other = scoreFrom({ key: 'C', time: fourFour, right: 'F2:1 C3:1 A2:1 C3:1 | C3:1 G3:1 E3:2' });
    const song = { ...one, parts: [one.parts[0]!, { ...other.parts[0]!, id: 'P2' }] };
    expect(chordsOf(song).map((s) => s.chord && chordSymbol(s.chord))).toEqual(['F', 'C']);
  });
  it('leave an unaccompanied pickup without a chord', () => {
    const spans = chordsOf(
      scoreFrom({ key: 'C', time: fourFour, pickup: 1, right: 'G4:1 | C5:4', left: 'r:1 | [C3 E3 G3]:4' }),
    );
    expect(spans.map((s) => s.chord && chordSymbol(s.chord))).toEqual([null, 'C']);
  });
  it('are heard in a waltz bass, spelled by the key', () => {
    expect(
      heard(
        'Bb4:3 | C5:2 Ab4:1 | D5:3 | Eb5:3',
        'Eb3:1 [G3 Bb3]:2 | Ab2:1 [C4 Eb4]:2 | Bb2:1 [F3 Ab3 D4]:2 | Eb3:3',
        'Eb',
        threeFour,
      ),
    ).toEqual(['E♭', 'A♭', 'B♭7', 'E♭']);
  });
});

describe('melody', () => {
  const line = (right: string, left = 'C3:4'): string[] =>
    melodyOf(scoreFrom({ key: 'C', time: fourFour, right, left })).map(
      (n) => `${pitchName(n.pitch)}+${n.duration / Q}`,
    );
  it('is the top of the chords', () => {
    expect(line('[C4 E4 G4]:2 [B3 D4 F4]:2')).toEqual(['G4+2', 'F4+2']);
  });
  it('sings on over inner notes that move below it', () => {
    const score = scoreFrom({ key: 'C', time: fourFour, right: 'G5:4', left: 'C3:4' });
    const inner = {
      ...score.parts[0]!.notes[0]!,
      id: 'inner',
      onset: Q,
      duration: Q,
      pitch: { step: 'E' as const, alter: 0, octave: 4 },
      voice: 2,
    };
    const two = { ...score, parts: [{ ...score.parts[0]!, notes: [...score.parts[0]!.notes, inner] }] };
    expect(melodyOf(two).map((n) => pitchName(n.pitch))).toEqual(['G5']);
  });
  it('is a voice with words before anything else', () => {
    const score = scoreFrom({ key: 'C', time: fourFour, right: 'G5:4', left: 'C3:4' });
    const voice = scoreFrom({ key: 'C', time: fourFour, right: 'E4:4' }).parts[0]!;
    const sung = voice.notes.map((n) => ({
      ...n,
      id: 'sung',
      lyrics: [{ line: 'words' as const, verse: 1, text: 'la', syllabic: 'single' as const }],
    }));
    expect(melodyPart({ ...score, parts: [score.parts[0]!, { ...voice, id: 'V', notes: sung }] }).id).toBe(
      'V',
    );
  });
});

describe('form', () => {
  const a = 'C4:4 | D4:4 | E4:4 | F4:4 | G4:4 | A4:4 | B4:4 | C5:4';
  const b = 'C5:4 | B4:4 | A4:4 | G4:2 E4:2 | F4:4 | E4:4 | D4:4 | C4:4';
  const aaba = scoreFrom({ key: 'C', time: fourFour, right: [a, a, b, a].join(' | ') });

  it('of AABA has sixteen of thirty-two measures to learn, less what B shares with A', () => {
    const form = formOf(aaba);
    expect(form.sections.map((s) => s.letter)).toEqual(['A', 'A', 'B', 'A']);
    expect(form.measureCount).toBe(32);
    // B has one measure of its own (G E); the others stand in A already.
    expect(form.newMeasures).toBe(9);
  });
  it('folds what comes again', () => {
    const path = foldedPath(formOf(aaba));
    expect(path.filter((p) => p.kind === 'again').map((p) => [p.from, p.to, p.as])).toContainEqual([
      8, 15, 0,
    ]);
    expect(path.filter((p) => p.kind === 'measure').slice(0, 8)).toHaveLength(8);
  });
  it('begins sections at rehearsal marks and keeps a pickup with what it leads into', () => {
    const form = formOf(
      scoreFrom({
        key: 'C',
        time: fourFour,
        pickup: 1,
        right: 'G4:1 | C5:4 | D5:4 | E5:4 | F5:4 | G5:4 | A5:4',
        sections: { 1: 'Verse', 5: 'Chorus' },
      }),
    );
    expect(form.sections.map((s) => [s.label, s.from, s.to])).toEqual([
      ['Verse', 0, 4],
      ['Chorus', 5, 6],
    ]);
    expect(form.phrases[0]).toMatchObject({ from: 0, to: 4 });
    expect(form.measureCount).toBe(6);
  });
  it.each([
    [3, [3]],
    [5, [3, 2]],
    [6, [3, 3]],
    [7, [4, 3]],
    [8, [4, 4]],
    [9, [4, 3, 2]],
  ])('cuts %i measures into phrases without leaving one alone', (count, sizes) => {
    const right = Array.from(
      { length: count },
      (_, i) => `${'CDEFGAB'[i % 7]}${4 + Math.floor(i / 7)}:4`,
    ).join(' | ');
    const form = formOf(scoreFrom({ key: 'C', time: fourFour, right }));
    expect(form.phrases.map((p) => p.to - p.from + 1)).toEqual(sizes);
  });
});
