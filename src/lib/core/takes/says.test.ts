import { describe, expect, it } from 'vitest';
import { heardSchema } from '../lessons/heard';
import { perform } from '../performance/perform';
import { scoreFrom } from '../test/shorthand';
import { expectationOf } from './expectation';
import { judge } from './judge';
import { pretendToPlay, type MeantKeystroke } from './pretendPlayer';
import { heardOf, sayTake, slipsOf, type TakenMusic } from './says';

const song = scoreFrom({
  key: 'G',
  time: { beats: 4, beatType: 4 },
  tempo: 72,
  right: 'G4:1 A4:1 B4:2 | D5:1 B4:1 A4:1 G4:1 | F#4:1 A4:1 D5:2 | C5:1 B4:1 A4:2',
  left: 'G3:4 | G3:4 | D3:4 | D3:4',
});
const expectation = expectationOf(perform(song), { from: 0, to: 3 });
const music: TakenMusic = {
  pitchOf: (id) => song.parts[0]!.notes.find((n) => n.id === id)?.pitch,
  measureText: (measure) => `measure ${measure + 1}`,
  ids: song.measures.map((m) => m.id),
  numbers: song.measures.map((m) => m.number),
  fifthsAt: () => 1,
};
const strokes = pretendToPlay(expectation, { seed: 2 }).keystrokes;
const changed = (measure: number, midi: number, to: number | undefined): MeantKeystroke[] => {
  const note = expectation.notes.find((n) => n.measure === measure && n.midi === midi)!;
  return strokes.flatMap((k) => (k.note !== note.index ? [k] : to === undefined ? [] : [{ ...k, midi: to }]));
};
const said = (played: readonly MeantKeystroke[]): string => sayTake(judge(expectation, played), music, '72');

describe('a take in words', () => {
  it('says what was right', () => {
    expect(said(strokes)).toBe('Everything was right at 72.');
    expect(said([])).toBe('Nothing was heard yet.');
  });
  it('names the measure and the key, by the letter of the note where that says it', () => {
    expect(said(changed(2, 66, 65))).toBe('Measure 3: F♯, not F. Everything else was right at 72.');
    expect(said(changed(3, 72, 73))).toBe('Measure 4: C, not C♯. Everything else was right at 72.');
    expect(said(changed(1, 71, 72))).toBe('Measure 2: B, not C. Everything else was right at 72.');
    expect(said(changed(1, 71, 74))).toBe('Measure 2: B, not D. Everything else was right at 72.');
    expect(said(changed(1, 71, 83))).toBe(
      'Measure 2: B, not an octave higher. Everything else was right at 72.',
    );
    expect(said(changed(3, 72, undefined))).toBe('Measure 4: C is missing. Everything else was right at 72.');
  });
  it('names a key too many, and a stop', () => {
    const extra = { midi: 68, onset: strokes[2]!.onset + 0.1, pass: 0 };
    expect(said([...strokes, extra])).toContain('Measure 1: an extra');
    const from = strokes.find((k) => k.note !== undefined && expectation.notes[k.note]!.measure === 2)!.onset;
    const stopped = strokes.map((k) => (k.onset >= from - 0.01 ? { ...k, onset: k.onset + 2 } : k));
    expect(said(stopped)).toBe('Everything was right at 72. You stopped in measure 3.');
  });
  it('names one hand alone, and counts measures beyond two', () => {
    const left = strokes.filter((k) => k.note !== undefined && expectation.notes[k.note]!.hand === 'left');
    expect(said(left)).toBe('The left hand alone. Everything was right at 72.');
    const off = strokes.map((k) => (k.midi === 71 || k.midi === 69 ? { ...k, midi: k.midi + 1 } : k));
    expect(said(off)).toMatch(/more measures? needs? a look; played at 72\.$/);
  });
});

describe('the facts that are kept', () => {
  it('are what the schema takes: grade, share, tempo, slips by measure', () => {
    const heard = heardOf(judge(expectation, changed(2, 66, 65)), music, 72, 'keyboard')!;
    expect(heardSchema.parse(heard)).toEqual(heard);
    expect(heard.tempo).toBe(72);
    expect(heard.measures.map((m) => [m.id, m.slips.length])).toEqual([
      ['m0', 0],
      ['m1', 0],
      ['m2', 1],
      ['m3', 0],
    ]);
    expect(heardOf(judge(expectation, []), music, 72, 'keyboard')).toBeUndefined();
  });
  it('say each slip once', () => {
    const measure = judge(expectation, changed(2, 66, 65)).measures[2]!;
    expect(slipsOf(measure, music)).toEqual(['F♯, not F']);
  });
});
